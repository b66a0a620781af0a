// @ts-check
/** The Solve page of the desk: an equation, its solutions on the plot, and methods step by step. */

import { showRows, viewOf } from "./watching.js";
import { Trouble, send } from "../sheet/api.js";
import { render } from "../lanes/formulas.js";
import { Timers } from "../sheet/throttle.js";
import { FURTHER, LATE, MOST_ASKED, Queue, Standing, quietly } from "../sheet/queue.js";
import { update } from "../sheet/update.js";
import { soon } from "../sheet/underway.js";

const EXACT = 150; // ms after an answer until exact forms are asked for
const STRIDE = 650; // ms between steps that play

/** The Solve page. @param {import("../sheet/instrument.js").Instrument} at */
export function solvePart(at) {
  const { events, plot, session } = at;
  const requests = new Queue();
  const standing = new Standing();
  /** Told of every answer shown, so that what comes later for another one is dropped. */
  const showing = new Standing();
  const watching = new Standing();
  /** The equation as it was asked last. @type {{text: string, unknown: string, low: string, high: string} | null} */
  let asked = null;
  /** The sides as lanes to be tried out, and what a method works on. @type {{edits: any[], lanes: any[]}} */
  let sides = { edits: [], lanes: [] };
  let keeping = false;
  /** @type {{edits: any[], lanes: any[], strokes: any[], places: number[], alone: boolean} | null} */
  let watched = null;
  /** The question whose method is watched, and how. @type {{text: string, unknown: string, low: string, high: string} | null} */
  let watchedFor = null;
  let watchedHow = { method: "", start: "", second: "" };
  const timers = new Timers();
  /** The solution that was chosen on the plot. @type {string | null} */
  let selected = null;
  const changed = () => at.showTemporary(watched?.lanes.length ? watched : sides);

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
    solving: false,
    equations: at.start.equations,
    method: "newton",
    methodStart: "",
    methodSecond: "",
    methodTrouble: "",
    methodStep: 0,
    methodSteps: 0,
    methodPlaying: false,
    methodAll: false,
    methodFollows: true,

    init() {
      events.on("changed", ({ state }) => {
        this.forgetTemporary();
        this.equations = state.equations;
      });
      events.on("refresh", () => this.solveAgain());
      events.on("sliding", (how) => how === "lists" && this.solveAgain());
      events.on("looked", () => this.solveInView());
      events.on("solution", (key) => this.selectSolution(key));
    },
    /** A changed sheet may have taken their names: they are made anew. */
    forgetTemporary() {
      sides = { edits: [], lanes: [] };
      // The steps that are being watched stay; what they work on comes with the next answer.
      if (watched) watched = { ...watched, edits: [], lanes: [] };
    },

    solve() {
      keeping = false;
      this.unknown = "";
      this.askEquation();
    },
    /** @param {string} name */
    chooseUnknown(name) {
      this.unknown = name;
      this.askEquation();
    },
    wholeLine() {
      this.solveLow = "−∞";
      this.solveHigh = "∞";
      if (this.equation.trim()) this.askEquation();
    },
    inView() {
      this.solveLow = "";
      this.solveHigh = "";
      if (this.equation.trim()) this.askEquation();
    },
    setSolveInterval() {
      if (this.equation.trim()) this.askEquation();
    },
    /** Asked again because something it depends on has changed; what could not be answered may be answered now. */
    solveAgain() {
      const question = asked;
      if (!question) return;
      const stands = standing.follow();
      requests.run(() => this.solveOne(question, stands, false));
    },
    /** The view is another, which matters where an end is left to it. */
    solveInView() {
      if (asked && (this.solved || this.solving) && (!asked.low || !asked.high)) this.solveAgain();
    },
    /** What a question is asked of. */
    solveGround() {
      return { head: session.state.head, preview: at.sliders.edits(), view: plot.view };
    },
    /** The equation as it is typed now becomes the question. */
    askEquation() {
      if (!this.equation.trim()) {
        this.solveTrouble = "Type an equation or an inequality first, such as cos x = x.";
        return;
      }
      selected = null;
      const question = { text: this.equation, unknown: this.unknown, low: this.solveLow, high: this.solveHigh };
      asked = question;
      this.solving = true;
      this.solveTrouble = "";
      this.solveMend = "";
      this.unknownChoices = [];
      const stands = standing.ask();
      requests.ask(() => this.solveOne(question, stands, true));
    },
    /**
     * @param {NonNullable<typeof asked>} question @param {() => boolean} stands
     * @param {boolean} keep whether it goes into the history
     */
    async solveOne(question, stands, keep) {
      timers.stop("further");
      try {
        const found = await send("POST", `/api/sheets/${session.key}/solve`, { ...this.solveGround(), ...question });
        if (keep && !found.choices) this.keepEquation(question);
        if (!stands()) return;
        this.solving = false;
        this.solveTrouble = found.message ?? "";
        this.solveMend = "";
        this.unknownChoices = found.choices ?? [];
        if (found.choices) this.showNothing();
        else this.showSolutions(found, question);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (!stands()) return;
        this.solving = false;
        this.solveTrouble = trouble.message;
        this.solveMend = trouble.body.mend ?? "";
        this.unknownChoices = [];
        if (trouble.kind === "refused") this.showNothing();
      }
    },
    /** What is still open is searched on, beside all other questions. @param {NonNullable<typeof asked>} question @param {() => boolean} stands */
    solveFurther(question, stands) {
      return quietly(async () => {
        const found = await send("POST", `/api/sheets/${session.key}/solve`, { ...this.solveGround(), ...question, longer: true });
        if (stands()) this.showSolutions(found, question, true);
      });
    },
    useSolveMend() {
      this.equation = this.solveMend;
      this.solve();
    },
    /** @param {any} found @param {NonNullable<typeof asked>} question @param {boolean} [longer] */
    showSolutions(found, question, longer = false) {
      this.solved = true;
      this.solvable = found.isEquation;
      sides = { edits: found.edits, lanes: found.lanes };
      // What is solved again by itself leaves the method alone that is being watched.
      // Steps that are still on their way are asked for again, as the sheet is now.
      if (watchedFor !== asked) this.stopWatching();
      else this.askSteps(!watched);
      plot.solutions = found.marks;
      plot.solved = found.solved;
      this.canKeepSides = found.edits.length > 0;
      const formula = byId("solve-formula");
      formula.replaceChildren();
      render(found.latex, formula);
      update(byId("solutions"), found.html);
      if (selected) this.selectSolution(selected);
      const stands = showing.ask();
      timers.later("exact", EXACT, () => this.askExactSolutions({ ...question, longer }, stands));
      if (found.goesOn) timers.later("further", FURTHER, () => this.solveFurther(question, stands));
      changed();
      if (keeping && this.canKeepSides) this.keepSides();
    },
    showNothing() {
      keeping = false;
      showing.ask();
      this.solved = false;
      this.forgetTemporary();
      plot.solutions = [];
      plot.solved = [];
      this.canKeepSides = false;
      byId("solve-formula").replaceChildren();
      byId("solutions").innerHTML = "";
      this.stopWatching();
    },
    clearSolutions() {
      asked = null;
      standing.ask();
      this.solving = false;
      this.equation = "";
      this.solveTrouble = "";
      this.unknownChoices = [];
      this.showNothing();
    },
    /** @param {NonNullable<typeof asked>} equation */
    keepEquation(equation) {
      const first = session.state.equations?.[0];
      if (first && JSON.stringify(first) === JSON.stringify(equation)) return;
      session.change({ edits: [{ do: "keep equation", equation }], byItself: true });
    },
    /** @param {any} equation */
    useEquation(equation) {
      this.equation = equation.text;
      this.unknown = equation.unknown;
      this.solveLow = equation.low;
      this.solveHigh = equation.high;
      this.askEquation();
    },
    /** @param {any} equation */
    forgetEquation(equation) {
      session.change({ edits: [{ do: "forget equation", text: equation.text }] });
    },
    /** @param {object} wanted @param {() => boolean} stands @param {number} [again] */
    async askExactSolutions(wanted, stands, again = MOST_ASKED) {
      if (!stands()) return;
      try {
          const found = await send("POST", `/api/sheets/${session.key}/solve/exact`, { ...this.solveGround(), ...wanted });
        if (!stands()) return;
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
          // What goes on without an end is told by the general solution; a count of the first says less.
          for (const line of byId("solutions").querySelectorAll("[data-endless]")) /** @type {HTMLElement} */ (line).hidden = true;
        }
        if (found.late && again) timers.later("exact", LATE, () => this.askExactSolutions(wanted, stands, again - 1));
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
      }
    },
    keepSides() {
      // While they are made anew there are none: they are kept as soon as they are there.
      keeping = !sides.edits.length;
      if (keeping) return;
      // Lanes that stay get ids of their own.
      const edits = sides.edits.map(({ id, ...edit }) => edit);
      this.forgetTemporary();
      session.change({ edits });
    },
    /** @param {Event} event */
    pickSolution(event) {
      const target = /** @type {HTMLElement} */ (event.target);
      const x = target.closest("[data-go]")?.getAttribute("data-go");
      if (x) at.readInSight(Number(x));
      const step = target.closest("tr[data-step]")?.getAttribute("data-step");
      if (step) this.showStep(Number(step));
      const turn = target.closest("[data-turn]")?.getAttribute("data-turn");
      if (turn) this.useEquation({ text: this.equation, unknown: this.unknown, low: "0", high: turn });
    },

    /** A solution that was chosen on the plot. @param {string} key */
    selectSolution(key) {
      selected = key;
      for (const row of byId("solve-page").querySelectorAll("tr[data-solution]")) {
        const chosen = row.getAttribute("data-solution") === key;
        row.classList.toggle("is-selected", chosen);
        if (chosen) row.scrollIntoView({ block: "nearest" });
      }
    },

    watch() {
      this.methodPlaying = false;
      watched = null;
      watchedFor = asked;
      watchedHow = { method: this.method, start: this.methodStart, second: this.methodSecond };
      return this.askSteps(true);
    },
    /** The steps of the method; of what is watched already as the sheet is now. @param {boolean} anew */
    async askSteps(anew) {
      this.methodTrouble = "";
      const stands = watching.ask();
      const question = asked;
      try {
        const found = await send("POST", `/api/sheets/${session.key}/method`, { ...this.solveGround(), ...question, ...watchedHow });
        if (!stands() || question !== asked) return;
        watched = found;
        update(byId("iterates"), found.html);
        this.methodSteps = found.strokes.length;
        this.showStep(anew ? 0 : this.methodStep);
        changed();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (!stands()) return;
        this.methodTrouble = trouble.message;
        this.stopWatching();
      }
    },
    stopWatching() {
      watching.ask(); // steps that are still on their way belong to nothing
      watched = null;
      watchedFor = null;
      this.methodSteps = 0;
      this.methodPlaying = false;
      plot.strokes = [];
      byId("iterates").innerHTML = "";
      changed();
    },
    /** @param {number} step */
    showStep(step) {
      if (!watched) return;
      this.methodStep = Math.min(Math.max(step, 0), watched.strokes.length - 1);
      plot.strokes = watched.strokes.slice(0, this.methodStep + 1).map((lines, k) => ({ lines, now: k === this.methodStep }));
      if (watched.alone) plot.strokes = plot.strokes.slice(-1);
      plot.strokeAt = watched.places[this.methodStep] ?? null;
      this.dressSteps();
      this.followStep();
      plot.ask();
    },
    dressSteps() {
      showRows(this.methodStep, this.methodSteps - 1, this.methodAll);
    },
    /** The view goes to a step that could not be seen, being small or outside. */
    followStep() {
      if (!this.methodFollows || !watched) return;
      const view = viewOf(watched.strokes.slice(this.methodStep, this.methodStep + 2).flat(2), plot.view);
      if (view) at.events.tell("look", { view });
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
          soon(go, STRIDE);
        }
      };
      soon(go, STRIDE);
    },

    /** What is shown while another question is being answered belongs to the one before. */
    get solutionsClass() {
      return this.solving ? "is-fading" : "";
    },
    get hasChoices() {
      return this.unknownChoices.length > 0;
    },
    get needsSecond() {
      const option = document.querySelector(`#method option[value="${CSS.escape(this.method)}"]`);
      return option?.getAttribute("data-starts") === "2";
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
