// @ts-check
/** The Solve page of the desk: an equation, its solutions on the plot, and methods step by step. */

import { Latest, Trouble, send } from "./api.js";
import { render } from "./formulas.js";

const EXACT = 150; // ms after an answer until exact forms are asked for
const STRIDE = 650; // ms between steps that play
const TWO_STARTS = ["bisection", "secant"];

/**
 * The parts of the page's component that solve.
 * @param {() => {session: import("./session.js").Session, plot: import("./plot.js").Plot, edits: () => object[],
 *   sight: (x: number) => void, changed: () => void, told: (text: string) => void}} at
 * @param {any[]} start
 */
export function solveParts(at, start) {
  const requests = new Latest();
  /** The sides as lanes to be tried out, and what a method works on. @type {{edits: any[], lanes: any[]}} */
  let sides = { edits: [], lanes: [] };
  /** @type {{edits: any[], lanes: any[], strokes: any[], places: number[]} | null} */
  let watched = null;
  /** @type {ReturnType<typeof setTimeout> | undefined} */
  let later;

  return {
    equation: "",
    unknown: "",
    unknownChoices: /** @type {string[]} */ ([]),
    solveLow: "",
    solveHigh: "",
    solveTrouble: "",
    solveMend: "",
    solved: false,
    solvable: false,
    canKeepSides: false,
    canSolveLonger: false,
    equations: start,
    method: "newton",
    methodStart: "",
    methodSecond: "",
    methodTrouble: "",
    methodStep: 0,
    methodSteps: 0,
    methodPlaying: false,

    /** Lanes that are on the plot for a while, as edits. */
    temporaryEdits() {
      return watched ? watched.edits : sides.edits;
    },
    temporaryLanes() {
      return watched ? watched.lanes : sides.lanes;
    },
    /** A changed sheet may have taken their names: they are made anew. */
    forgetTemporary() {
      sides = { edits: [], lanes: [] };
      watched = null;
    },

    solve() {
      this.unknown = "";
      this.runEquation(true);
    },
    /** @param {string} name */
    chooseUnknown(name) {
      this.unknown = name;
      this.runEquation(true);
    },
    solveLonger() {
      this.runEquation(false, { longer: true });
    },
    wholeLine() {
      this.solveLow = "−∞";
      this.solveHigh = "∞";
      if (this.equation.trim()) this.runEquation(true);
    },
    inView() {
      this.solveLow = "";
      this.solveHigh = "";
      if (this.equation.trim()) this.runEquation(true);
    },
    setSolveInterval() {
      if (this.equation.trim()) this.runEquation(true);
    },
    /** Solved again because something it depends on has changed. */
    solveAgain() {
      if (this.solved) this.runEquation(false);
    },
    wanted() {
      const { session, plot, edits } = at();
      return {
        head: session.state.head,
        preview: edits(),
        view: plot.view,
        text: this.equation,
        unknown: this.unknown,
        low: this.solveLow,
        high: this.solveHigh,
      };
    },
    /** @param {boolean} keep whether it goes into the history @param {object} [more] */
    runEquation(keep, more = {}) {
      if (!this.equation.trim()) {
        this.solveTrouble = "Type an equation or an inequality first, such as cos x = x.";
        return;
      }
      requests.run(async () => {
        const { session } = at();
        const wanted = { ...this.wanted(), ...more };
        try {
          const found = await send("POST", `/api/sheets/${session.key}/solve`, wanted);
          if (wanted.text !== this.equation) return;
          this.solveTrouble = found.message ?? "";
          this.solveMend = "";
          this.unknownChoices = found.choices ?? [];
          if (found.choices) {
            this.showNothing();
            return;
          }
          this.showSolutions(found);
          if (keep) this.keepEquation(wanted);
          clearTimeout(later);
          later = setTimeout(() => this.askExactSolutions(wanted), EXACT);
        } catch (trouble) {
          if (!(trouble instanceof Trouble)) throw trouble;
          this.solveTrouble = trouble.message;
          this.solveMend = trouble.body.mend ?? "";
          this.unknownChoices = [];
          if (trouble.kind === "refused") this.showNothing();
        }
      });
    },
    useSolveMend() {
      this.equation = this.solveMend;
      this.solve();
    },
    /** @param {any} found */
    showSolutions(found) {
      const { plot, changed } = at();
      this.solved = true;
      this.solvable = found.isEquation;
      sides = { edits: found.edits, lanes: found.lanes };
      watched = null;
      plot.strokes = [];
      plot.solutions = found.marks;
      plot.solved = found.solved;
      this.canKeepSides = found.edits.length > 0;
      this.canSolveLonger = found.longer;
      const formula = byId("solve-formula");
      formula.replaceChildren();
      render(found.latex, formula);
      byId("solutions").innerHTML = found.html;
      changed();
    },
    showNothing() {
      const { plot, changed } = at();
      this.solved = false;
      this.forgetTemporary();
      plot.strokes = [];
      plot.solutions = [];
      plot.solved = [];
      this.canKeepSides = false;
      byId("solve-formula").replaceChildren();
      byId("solutions").innerHTML = "";
      byId("iterates").innerHTML = "";
      this.methodSteps = 0;
      changed();
    },
    clearSolutions() {
      this.equation = "";
      this.solveTrouble = "";
      this.unknownChoices = [];
      this.showNothing();
    },
    /** @param {any} wanted */
    keepEquation(wanted) {
      const { session } = at();
      const equation = { text: wanted.text, unknown: wanted.unknown, low: wanted.low, high: wanted.high };
      const first = session.state.equations?.[0];
      if (first && JSON.stringify(first) === JSON.stringify(equation)) return;
      session.change({ edits: [{ do: "keep equation", equation }] });
    },
    /** @param {any} equation */
    useEquation(equation) {
      this.equation = equation.text;
      this.unknown = equation.unknown;
      this.solveLow = equation.low;
      this.solveHigh = equation.high;
      this.runEquation(true);
    },
    /** @param {any} equation */
    forgetEquation(equation) {
      at().session.change({ edits: [{ do: "forget equation", text: equation.text }] });
    },
    /** @param {any} wanted @param {number} [again] */
    async askExactSolutions(wanted, again = 2) {
      try {
        const { session } = at();
        const found = await send("POST", `/api/sheets/${session.key}/solve/exact`, wanted);
        if (wanted.text !== this.equation || !this.solved) return;
        for (const [key, form] of Object.entries(found.forms)) {
          const row = byId("solutions").querySelector(`[data-solution="${key}"]`);
          for (const name of ["x", "y"]) {
            const place = row?.querySelector(`[data-exact="${name}"]`);
            if (place && form[name]) {
              place.textContent = form[name];
              place.setAttribute("title", form[name]);
            }
          }
        }
        const general = /** @type {HTMLElement | null} */ (byId("solutions").querySelector("[data-general]"));
        const told = found.always ? "True wherever both sides are defined: exact arithmetic finds no difference." : found.families.length ? `All solutions: ${found.families.join(" or ")}, k any whole number.` : "";
        if (general && told) {
          general.textContent = told;
          general.hidden = false;
        }
        if (found.late && again) setTimeout(() => this.askExactSolutions(wanted, again - 1), 1500);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
      }
    },
    keepSides() {
      const { session } = at();
      // Lanes that stay get ids of their own.
      const edits = sides.edits.map(({ id, ...edit }) => edit);
      this.forgetTemporary();
      session.change({ edits });
    },
    /** @param {Event} event */
    pickSolution(event) {
      const target = /** @type {HTMLElement} */ (event.target);
      const x = target.closest("[data-go]")?.getAttribute("data-go");
      if (x) at().sight(Number(x));
      const step = target.closest("tr[data-step]")?.getAttribute("data-step");
      if (step) this.showStep(Number(step));
    },

    // Methods, step by step

    async watch() {
      const { session, changed } = at();
      this.methodTrouble = "";
      this.methodPlaying = false;
      try {
        const body = { ...this.wanted(), method: this.method, start: this.methodStart, second: this.methodSecond };
        const found = await send("POST", `/api/sheets/${session.key}/method`, body);
        watched = found;
        byId("iterates").innerHTML = found.html;
        this.methodSteps = found.strokes.length;
        this.showStep(0);
        changed();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.methodTrouble = trouble.message;
        this.stopWatching();
      }
    },
    stopWatching() {
      const { plot, changed } = at();
      watched = null;
      this.methodSteps = 0;
      this.methodPlaying = false;
      plot.strokes = [];
      byId("iterates").innerHTML = "";
      changed();
    },
    /** @param {number} step */
    showStep(step) {
      const { plot } = at();
      if (!watched) return;
      this.methodStep = Math.min(Math.max(step, 0), watched.strokes.length - 1);
      plot.strokes = watched.strokes.slice(0, this.methodStep + 1).map((lines, k) => ({ lines, now: k === this.methodStep }));
      if (this.method === "bisection") plot.strokes = plot.strokes.slice(-1);
      plot.strokeAt = watched.places[this.methodStep] ?? null;
      for (const row of byId("iterates").querySelectorAll("tr[data-step]")) {
        row.classList.toggle("is-selected", row.getAttribute("data-step") === String(this.methodStep));
      }
      plot.ask();
    },
    stepBack() {
      this.showStep(this.methodStep - 1);
    },
    stepOn() {
      this.showStep(this.methodStep + 1);
    },
    playSteps() {
      this.methodPlaying = !this.methodPlaying;
      if (this.methodPlaying && this.methodStep >= this.methodSteps - 1) this.showStep(0);
      const go = () => {
        if (!this.methodPlaying) return;
        if (this.methodStep >= this.methodSteps - 1) this.methodPlaying = false;
        else {
          this.showStep(this.methodStep + 1);
          setTimeout(go, STRIDE);
        }
      };
      setTimeout(go, STRIDE);
    },

    get hasChoices() {
      return this.unknownChoices.length > 0;
    },
    get needsSecond() {
      return TWO_STARTS.includes(this.method);
    },
    get startWord() {
      return this.needsSecond ? "from" : "start";
    },
    get isWatching() {
      return this.methodSteps > 0;
    },
    get canWatch() {
      return this.solved && this.solvable;
    },
    get stepWords() {
      return `step ${this.methodStep} of ${this.methodSteps - 1}`;
    },
    get playFace() {
      return this.methodPlaying ? "pause" : "play";
    },
    get hasHistory() {
      return this.equations.length > 0;
    },
  };
}

/** @param {string} id @returns {HTMLElement} */
const byId = (id) => /** @type {HTMLElement} */ (document.getElementById(id));
