"""What people want to do, and how, as the handbook tells it."""

from __future__ import annotations

HOW_TO = (
    (
        "See a function",
        "Type a formula and press Enter. The sheet draws it, chooses a view that shows its zeros "
        "and turning points, and lists them on the desk. Click a formula to change it.",
    ),
    (
        "Write it as you know it",
        "Formulas are read from LaTeX, with raised letters, with ∫, Σ and lim, and in words such "
        "as tangent to f at x = 2. What is written otherwise here is offered typeset, and one "
        "click takes it; where two readings are plausible both are offered. A calculation, such "
        "as 100 km/h in m/s, goes to the page Working by itself; several definitions in one line "
        "become several lanes, several equations a block.",
    ),
    (
        "Ask in words",
        "Zeros of x^2 - 4, vertex of …, intersection of x^2 and 2x + 1, line through (1, 2) and "
        "(3, 5), line with slope 2 through (0, 1), parabola with vertex (1, 2) through (0, 0), "
        "second derivative of sin x, sum of k from 1 to 100, a from 0 to 10 for a slider with its "
        "range: each becomes what it asks for.",
    ),
    (
        "See a formula in another form",
        "Below the landmarks of a polynomial, or of a quotient of polynomials, stand its other "
        "forms: in factors, with its vertex, divided out, as partial fractions, its derivatives. "
        "Each says what can be read off it, and for which x it has no value. Or type factor "
        "x^2 - 4, expand (x + 1)^3, simplify …, complete the square …: every form is proved equal.",
    ),
    (
        "Calculate with points, draw figures",
        "Write (A + B)/2, 2A - B, segment(A, B), ray(A, B), circle(A, 3), circle(A, B), triangle "
        "ABC or perpendicular bisector of A and B: each is offered as a formula of the points’ "
        "coordinates, so that it follows when they are dragged.",
    ),
    (
        "Define a function by an integral",
        "Write its ends: F(x) = integral(sin(t^2) for t = 0 to x). It is drawn, and its zeros, "
        "turning points and inflections are proved, like those of any other function.",
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
        "Work in several browsers",
        "Nobody has to sign in. Under Account on the shelf a name and a passphrase make an "
        "account; what you have made as a guest comes along. You get recovery codes to write "
        "down, see "
        "where you are signed in, sign out there or everywhere, and can delete the account with "
        "all it holds.",
    ),
    (
        "Find sheets again",
        "The shelf shows each sheet with a picture and what is on it. Search looks through names, "
        "formulas, notes and titles; labels of your own are put on chosen sheets, which are also "
        "duplicated, deleted and taken away together.",
    ),
    (
        "Go back in the history",
        "The clock in the bar of a sheet opens its past: look at points, play them, compare two, "
        "give one a name such as “before the test”. “Go back” makes the old state the newest one, "
        "so nothing that came since is lost; “Branch” makes a sheet of its own of it.",
    ),
    (
        "Prepare a sheet for a class",
        "Make the sheet, then “Hand out” in its bar: choose lanes and pages of the desk, whether "
        "it follows your changes or stays as it is, when it ends, and whether landmarks are "
        "covered until they are found. Give the link away or project its code. Nobody signs in: "
        "they turn sliders, read, make tables, solve, and take a copy; your sheet does not change. "
        "“Take back” closes the link at once. One that may be framed stands in your own pages as "
        "<iframe src=LINK>; there, what is turned is not kept.",
    ),
    (
        "Practise finding landmarks",
        "On the page Practise, cover landmarks: all, some kinds, or those of some lanes. They are "
        "then shown nowhere. Say where you think one is: type a number or a point, exactly or as "
        "a decimal, or press “point at it” and click on the plot, a strip or a row of a table. A "
        "click counts to a hundredth of the view, a decimal number to its digits. You are told "
        "what is there instead, and “that is all of them” only where the search was complete. "
        "Help comes in steps. Undo loses no try.",
    ),
    (
        "Ask questions on a sheet",
        "Under “Write a question” on the page Practise choose a kind: find all landmarks, give a "
        "domain, solve, bring a curve onto a faint one, fill a column, recognise a curve, write a "
        "sentence. The sentence and a tried answer are shown while you write. Questions are part "
        "of the sheet, its files and its hand-outs. Equal forms are accepted, in any order.",
    ),
    (
        "Collect answers from a class",
        "Tick “collect answers” when you hand a sheet out. Visitors are told before their first "
        "answer, and choose a name. “Answers” beside the link shows who answered what, how often "
        "and when, and which landmarks were missed most; it gives a CSV file, and deletes all of "
        "it. What was collected goes with the end of the hand-out.",
    ),
    (
        "Hold an examination",
        "“Seal it” when you hand a sheet out: when it begins, how long it lasts, the word to enter "
        "with, and what is switched off. Students see what is off and what is recorded before "
        "they begin; what they do is saved all the time, survives a lost network, and is handed "
        "in by itself. On the page of its answers you see who is in, away and done, give more "
        "time, end it, let somebody in again, and take everything as a ZIP; ./axis-path verify "
        "tells whether that was changed. A web page cannot prevent other windows, devices or "
        "neighbours: it records that it was left.",
    ),
    (
        "Hear a curve",
        "Press U on the plot, or “hear” on the Reading card. Pitch follows the height over the "
        "view, three octaves from its bottom to its top; the side of the ear follows x. Each kind "
        "of landmark has a tick of its own; a breath of noise means that there is no value, and "
        "a short silence that the curve is torn. It goes over the view or from the held reading "
        "to this one, at three speeds, forwards or back, and stops at landmarks while their words "
        "are spoken. A second lane can follow the first. With “chord” all lanes at the reading "
        "sound together: play a slider, and hear them move.",
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
