"""The rules of reading, each with lines that show it. The handbook prints them; tests read them."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Rule:
    """A rule in a sentence or two, and examples of it."""

    title: str
    text: str
    examples: tuple[str, ...]


RULES = (
    Rule(
        "Functions and numbers",
        "A line with a name and an argument defines a function; a bare formula in x gets the next "
        "free letter. A name alone is a number. The order of lines does not matter.",
        ("f(x) = x^2 - x - 3", "x^2 - x - 3", "volume(r, h) = π r^2 h", "a = 1.4"),
    ),
    Rule(
        "Values",
        "A line without a variable and without a name is a value: its lane gives it exactly, where "
        "that is known, and as a decimal. It is called v_1, v_2 and so on for use elsewhere. To "
        "draw a level line, write y = and the value.",
        ("sin(52°)", "2π/3", "√2 + 1", "[1, 2, 5]", "y = 2"),
    ),
    Rule(
        "Points",
        "Two coordinates in brackets are a point; it takes the next capital letter, or a name of "
        "its own. P_x and P_y are its coordinates, wherever a number can stand. Square brackets "
        "hold a list of points; two lists of the same length make one too. A point of plain "
        "numbers can be dragged.",
        ("(1, 3)", "P = (2, 5)", "[(0, 1), (2, 3)]", "([1, 2, 3], [2, 4, 9])"),
    ),
    Rule(
        "Curves with a parameter",
        "Two coordinates in which a letter runs are a curve: t, θ, φ, s, u or τ by itself where "
        "nothing else is called so, any letter that stands in brackets after the name or that the "
        "range is about. Without a range the sheet chooses one and says why. C(2) is a point of "
        "the curve, C_x(2) and C_y(2) are its coordinates.",
        (
            "C(t) = (sin 5t, cos 4t) for 0 <= t <= 2π",
            "(cos 5t, sin 3t)",
            "(v, v^2) for -2 <= v <= 2",
        ),
    ),
    Rule(
        "Polar curves",
        "r in terms of an angle is a curve about the pole, the point (0, 0): r(θ) = …, or r = … "
        "with θ (or theta) in it or a range of θ. Where r is negative the point lies on the other "
        "side of the pole, and the curve is drawn paler. A semicolon makes polar coordinates of a "
        "point: the distance from the pole, then the angle.",
        ("r = 1 + 2 cos(3θ)", "r(theta) = theta/3", "r = 2 for 0 <= θ <= π", "(4; 3π/2)"),
    ),
    Rule(
        "Two points",
        "distance, slope and midpoint take two points, by their names or in brackets; line is the "
        "function whose graph is the line through them. A sheet may use these words for "
        "something else.",
        (
            "distance((0, 0), (3, 4))",
            "slope((0, 1), (4, 3))",
            "midpoint((0, 1), (4, 3))",
            "line((0, 1), (4, 3))",
        ),
    ),
    Rule(
        "Products without a sign",
        "Things side by side are multiplied, just as with a sign between them, and from left to "
        "right: 6/2(1+2) is 9, and 1/2x is half of x. Known names may touch, as in xsin x; a "
        "letter without a value beside x, as in mx, is a factor that waits for its value.",
        ("2x", "3x sin x", "(x - 1)(x + 2)", "1/2x", "6/2(1 + 2)"),
    ),
    Rule(
        "Powers and signs",
        "Powers are read from the right and come before a leading minus: −3^2 is −9. A raised "
        "number may be typed as ² or ³.",
        ("-3^2", "2^3^2", "2^-1", "x²", "e^(2x)"),
    ),
    Rule(
        "Functions without brackets",
        "A function takes the product that follows it, up to the next function or written sign: "
        "sin 2x is the sine of 2x, and sin x^2 the sine of x².",
        ("sin 2x", "sin x^2", "x sin x", "sin x cos x", "ln 2x + 1"),
    ),
    Rule(
        "Powers and inverses of functions",
        "sin^2(x) is the square of the sine; sin^-1(x) is the inverse function, arcsin.",
        ("sin^2(x)", "sin²x + cos²x", "sin^-1(x)"),
    ),
    Rule(
        "Roots",
        "√ takes the factor that follows. A power with an odd root written as a fraction is the "
        "real root, for negative numbers too; x^0.5 is not defined there.",
        ("√x", "√(x + 4)", "∛x", "cbrt(x)", "root(5, x)", "x^(1/3)"),
    ),
    Rule(
        "Logarithms",
        "ln is the natural logarithm, log the one to base 10, and log_2 the one to base 2.",
        ("ln x", "log x", "log_2(x)", "log_0.5(x)"),
    ),
    Rule(
        "Absolute values",
        "Bars enclose what they measure, and may stand inside one another: |2|x| - 1| measures "
        "2|x| - 1.",
        ("|x - 2|", "|2|x| - 1|", "||x| - 3|", "|x||x - 1|"),
    ),
    Rule(
        "Domains",
        "After “for” stands where a function lives. Square brackets include an end, round ones do "
        "not; ∞ is no end.",
        ("x^2 for -4 <= x <= 2", "x^2 for x in [-4, 2)", "√x for x >= 0"),
    ),
    Rule(
        "Cases",
        "Values with conditions, separated by commas; the first condition that holds decides.",
        ("x + 2 if x < 0, x^2 otherwise", "1 if 0 <= x < 1, 2 if x = 1, 3 otherwise"),
    ),
    Rule(
        "Factorials",
        "n! and binomial(n, k) are defined for whole numbers; gamma(x + 1) fills the gaps between.",
        ("5!", "x!", "gamma(x + 1)", "binomial(5, 2)"),
    ),
    Rule(
        "Derivatives",
        "Primes after the name of a function of the sheet: f′(x), f″(x), f′(2).",
        ("f'(x)", "f''(x)", "f(x) - x f'(1)"),
    ),
    Rule(
        "Lists, sums and products",
        "A list is typed, made by step or made by count; arithmetic works element by element. "
        "Sums and products run over whole numbers.",
        (
            "L = [2, 3, 5]",
            "L = steps(0, 2, 0.25)",
            "L = spread(-1, 1, 41)",
            "sum(x^k/k! for k = 0 to 5)",
            "product(k for k = 1 to 5)",
        ),
    ),
    Rule(
        "Angles",
        "Degrees or radians belong to the sheet and are chosen at the top. 30° means thirty "
        "degrees in either.",
        ("sin 30°", "cos(π/3)", "tan x"),
    ),
    Rule(
        "Numbers",
        "Decimals have a point. Powers of ten may be written 2.5e-3. There are no separators for "
        "thousands.",
        ("0.25", ".5x", "2.5e-3 x", "2½ x"),
    ),
)

HOW_TO = (
    (
        "See a function",
        "Type a formula and press Enter. The sheet draws it, chooses a view that shows its zeros "
        "and turning points, and lists them on the desk. Click a formula to change it.",
    ),
    (
        "Choose a domain",
        "Type the ends below the formula, or drag the brackets at the ends of the strip. An empty "
        "field means that there is no end.",
    ),
    (
        "Look around",
        "Drag the plot to move it, turn the wheel to zoom at the pointer, or type the limits, as "
        "formulas if you like. Drag along the numbers of one axis to stretch that axis alone, and "
        "with Shift to draw a box to zoom into. With the plot in focus, Alt and the arrows move, "
        "+ and − zoom, 0 frames what matters and Backspace goes back to the previous view; the "
        "question mark lists all keys.",
    ),
    (
        "Read values at one x",
        "Point at the plot, or put it in focus and press ← and →, with Shift for larger steps. A "
        "click on a landmark or on a row of the table goes there. “Hold” keeps a reading, and the "
        "next one is compared with it: differences and the slope between. Tangent and area are "
        "drawn at the readings; an area says whether it is proven.",
    ),
    (
        "Draw a figure with a parameter",
        "Type its two coordinates, such as (cos 5t, sin 3t). The strip runs along the parameter: "
        "drag the brackets or type the ends, and drag the point or press play to let it move. The "
        "lane says whether the figure is closed; where it would close further on, one button draws "
        "it to there. Landmarks are listed with their parameters, with length and area.",
    ),
    (
        "Draw in polar coordinates",
        "Type r = and a formula in θ. A polar grid and equal scale come with the first one, and "
        "can be chosen in the View card. Points show their distance and angle beside their "
        "coordinates, the angle from 0 to a full turn or from −½ to ½ of one, as chosen there.",
    ),
    (
        "Draw a relation",
        "Type an equation in x and y, such as x^2 + y^2 = 20 or x = 4. What can be proved is a "
        "line; a place that could not be settled is shown pale. The strip tells how many points "
        "lie over each x, and the reading line reads all of them. Behind “for” stand inequalities "
        "that cut it off: x = y^2 for y > 0. Where it can be solved for y or x, its lane offers "
        "the solutions as lanes.",
    ),
    (
        "Shade a region",
        "Type inequalities in x and y, joined by “and” and “or”: 2x + 3y >= 6 and y < 5, or a "
        "chain such as 1 <= x^2 + y^2 < 9. A border that belongs is unbroken, one that does not is "
        "broken, and corners are filled or hollow likewise. Regions are joined by their names, as "
        "in R and S. The strip shows where along x there is any of it, a point says in which "
        "regions it lies, and the words under the plot tell its area and whether it has an end.",
    ),
    (
        "See a function of two variables",
        "Type h(x, y) = and a formula. The plot shows it as a map: level lines with their numbers, "
        "the higher the darker, with its highest, lowest and saddle points. Under the three dots "
        "are its levels, how many or which. “As a surface” shows it from the side; drag it or use "
        "the arrows to turn it, Escape goes back to the plot.",
    ),
    (
        "Read a place of the plane",
        "With a function of x and y or a region on the sheet a click on the plot reads at x and "
        "at y, and y can be typed on the page Landmarks: value, gradient, steepest direction and "
        "tangent plane, and what the function is along x and along y there, to be kept as lanes.",
    ),
    (
        "Tabulate over rows and columns",
        "On the page Values choose a function of two numbers for “across”: its first number runs "
        "from row to row, its second from column to column.",
    ),
    (
        "Solve two equations in two unknowns",
        "Type both on the page Solve with a comma between them: x^2 + y^2 = 25, x + y = 7. "
        "Inequalities may stand beside them. What is searched is what the view shows. The largest "
        "value of a linear expression on a linear region is asked for in words: largest 3x + 2y "
        "in R; kept as lanes, its level line is moved by a slider.",
    ),
    (
        "Calculate beside the graph",
        "On the page Working (= leads there) type a calculation and press Enter: 10/14, √12, "
        "volume(2, 5), [1, 2; 3, 4]^-1. The result stands to the right, exact and as a decimal. "
        "ans is the line before, ↑ brings earlier lines back, a click changes a line, and all that "
        "uses it follows, lanes too. Under the three dots a line is written in another way, "
        "copied, put to rest, sent to the sheet; “Names in use” lists what there is.",
    ),
    (
        "Solve a linear system by rows",
        "Open “Linear system” on the page Working, type an equation on each line and press “Solve "
        "by rows”: each step in words and in the notation of rows, forward and back. Operations "
        "of your own are typed as R2 - 3 R1, 1/2 R2 or R1 <-> R2 and checked. A matrix on a line "
        "is reduced likewise: “Reduce by rows” under its three dots.",
    ),
    (
        "Bring in measured numbers",
        "The page Data of the desk holds rows: type them, paste a block of cells there or "
        "anywhere on the sheet, or open a CSV, XLSX or ODS file; what was understood is shown "
        "before anything changes. The names of columns are lists in formulas, such as "
        "(hours, depth) or mean(depth). A point can be dragged, and a row left out without "
        "deleting it.",
    ),
    (
        "Compute a column from others",
        "Type = and a formula below its name: depth/2, step(distance)/step(time), running(fuel), "
        "rank(heat), row(heat). step is the difference to the row before, running the sum so far.",
    ),
    (
        "Fit a curve",
        "On the page Data choose a kind of curve, or type a formula of your own such as "
        "a e^(-b x) + c: names that nothing defines are fitted. The fit is a lane like every "
        "function and follows its points; its strip shows the residuals. Numbers stand with their "
        "standard errors, a coefficient can be held, and squares show what is made least.",
    ),
    (
        "Let a point move along a curve",
        "P = C(a) with a slider a is a point that moves with the slider; the point on the curve "
        "itself moves with the strip of its lane. Under the three dots the trail is chosen that "
        "it leaves, and the step and speed of its play.",
    ),
    (
        "Tabulate a curve",
        "On the page Values choose its parameter for “of”: the rows run over its range, with x and "
        "y as columns, and r for a polar curve. A click on a row puts the moving point there.",
    ),
    (
        "Change how things look",
        "Grid, axes and numbers are chosen in the View card; title, labels and legend behind "
        "“numbers, title…”, with mathematics between two $ signs. The three dots of a lane hold "
        "its colour, thickness, dash and markers, the trail it leaves while a slider moves, and a "
        "drawing from samples, with the true curve faint behind them.",
    ),
    (
        "Take a sheet or a picture away, or print",
        "The arrow in the bar saves the whole sheet (a file that can be brought back, a notebook "
        "or script that computes it again, a PDF or LaTeX with the parts you choose, a "
        "spreadsheet) or the plot as PNG, SVG or PDF: in pixels, in cm, as a slide, in light or "
        "dark colours, with or without a ground. The three dots of a lane copy its formula as "
        "LaTeX or MathML. On the shelf, chosen sheets go away together as a ZIP.",
    ),
    (
        "Bring a sheet back",
        "On the shelf, choose a JSON file or a ZIP of them; a table (CSV, XLSX, ODS) becomes a "
        "sheet with its data, a text with formulas (.txt, .tex, .py) one with a lane for each. "
        "All that is read comes onto the shelf; what is left out is named. Many lines pasted "
        "into the entry become as many lanes, from LaTeX and from Python too.",
    ),
    (
        "Read a sheet’s file",
        "It is JSON; its schema is at /schema/sheet-1.json. It begins with “axis path sheet”, the "
        "version of the schema. Under “lanes” each lane has its line as “text”, as it is typed; "
        "“view” has the limits, “tables”, “equations” and “ground” what their pages show. What is "
        "left out has its default; ./axis-path convert SHEET.json --to notebook makes others.",
    ),
    (
        "Make a table",
        "Open Values on the desk and type from, to and step; formulas such as π/6 are welcome. "
        "Rows can also come by count, from a list or a file, or from landmarks or points, and a "
        "slider can run instead of x. A dash marks a place without a value, and says why. Any "
        "expression, such as f(x) - g(x), can be a column.",
    ),
    (
        "Read a solution off a table",
        "Where a column changes sign between two rows, or two columns cross, the table says so, "
        "and tells a pole from a zero. “Ten rows between” refines that stretch, again and again; "
        "“go there” moves the reading line to the proven place.",
    ),
    (
        "Solve an equation",
        "Open Solve on the desk and type it as it is met: cos x = x, tan x = 5/8, f(x) = g(x), or "
        "an inequality such as x^2 < 4. The interval is the view unless you type one; “whole "
        "line” means from −∞ to ∞. No solution, all numbers, and what could not be settled are "
        "answers too. Two curves y = x^2, y = 2 - x, separated by a comma, are solved where they "
        "meet.",
    ),
    (
        "See a method at work",
        "After solving an equation, choose Newton, bisection, secant or fixed-point iteration and "
        "a start, and step through the iterates on the plot. A method that fails says how.",
    ),
    (
        "Turn a slider",
        "A plain number such as a = 2 is a slider: drag it, or put it in focus and use the arrows "
        "(with Shift in small steps), Home, End and the space bar to play; Escape pauses all. Its "
        "ends and step are typed, and may be formulas. A name without a value becomes a slider "
        "with one click.",
    ),
    (
        "Find a landmark",
        "Landmarks are found without being asked for. With the plot in focus, the full stop goes "
        "to the next one and the comma to the one before. Drag along the x-axis, or type two ends "
        "on the desk, to look at a part only. The mark beside a landmark opens its proof, and "
        "there it can be copied or labelled on the plot.",
    ),
    (
        "Solve equations in any order",
        "On the page Working, =? opens a block: type equations, one on each line, in any order. "
        "Every name that the sheet gives no value is an unknown. What can be found is found from "
        "as few equations as need be solved at once, exactly where they are linear, by the proven "
        "search otherwise; each answer says from which. Too many, too few and contradicting "
        "equations are named, and the rest is answered. The three dots of an unknown take bounds, "
        "a start and a unit. Answers are names of the sheet: lanes, Values and Solve use them, and "
        "sliders in a block move them. Of several solutions the sheet uses the one that is chosen.",
    ),
    (
        "Make a table over equations",
        "Under the answers of a block open Table, choose a name, say from where to where it runs "
        "and in how many rows: every row is solved. Its points can be drawn as a data set.",
    ),
    (
        "Calculate with units",
        "Units stand behind numbers: 850 kg · g in kN. They are checked, and what does not fit is "
        "named. An answer found from quantities carries one digit more than the least that was "
        "typed of them, four at least. All units and constants are listed below with their source.",
    ),
    (
        "Draw quantities",
        "Under “numbers, title…” give the axes units, such as s and m. Then lanes may hold "
        "quantities: h(x) = 1.5 m + 12 m/s x, where x counts seconds and the values metres. "
        "Readings, tables and labels have the units; lanes without any stay as they are.",
    ),
    (
        "Keep order among lanes",
        "The three dots of a lane open its colour, a note, and moving and duplicating it; Alt "
        "with ↑ or ↓ moves the lane that is in focus.",
    ),
    (
        "Trust a result",
        "✓ means proven by interval arithmetic, = exact, ≈ approached but not proven. Where "
        "something could not be settled, the list says where and why.",
    ),
    (
        "Use a name before it has a value",
        "A lane that names something unknown waits, and offers to give the name a value.",
    ),
    (
        "Take a step back",
        "Undo and redo reach back through the whole history of a sheet, after closing it too. "
        "Deleted sheets can be restored on the shelf.",
    ),
)
