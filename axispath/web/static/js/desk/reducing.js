// @ts-check
/** Row reduction: steps forward and back, and operations of one's own. */

import { Trouble, send } from "../sheet/api.js";

/**
 * @typedef {{id?: string, system?: string}} Asked what is reduced: a line, or a system as typed
 */

/** Shows the reduction of one matrix in a place of the page. */
export class Reduction {
  /**
   * @param {import("../sheet/instrument.js").Instrument} at
   * @param {HTMLElement} host
   */
  constructor(at, host) {
    this.at = at;
    this.host = host;
    /** @type {Asked} */
    this.asked = {};
    /** @type {string[]} */
    this.own = [];
    this.reduced = true;
    this.shown = 1;
    /** What the server told beside the steps. @type {any} */
    this.found = null;
    host.addEventListener("click", (event) => this.pressed(/** @type {HTMLElement} */ (event.target)));
    host.addEventListener("change", (event) => {
      const box = /** @type {HTMLInputElement} */ (event.target);
      if (!("reduced" in box.dataset)) return;
      this.reduced = box.checked;
      this.refresh();
    });
    host.addEventListener("submit", (event) => {
      event.preventDefault();
      const field = this.field();
      if (field?.value.trim()) this.tried(field.value.trim());
    });
  }
  field() {
    return /** @type {HTMLInputElement | null} */ (this.host.querySelector(".rows-own input"));
  }
  /** @param {Asked} asked */
  async open(asked) {
    this.asked = asked;
    this.own = [];
    return this.refresh();
  }
  close() {
    this.asked = {};
    this.host.hidden = true;
    this.host.innerHTML = "";
  }
  get isOpen() {
    return Boolean(this.asked.id || this.asked.system);
  }
  /** Ask for the steps. Rejects with what the server refuses. @param {string[]} [own] */
  async refresh(own = this.own) {
    const { session, sliders } = this.at;
    const body = { head: session.state.head, preview: sliders.edits(), ...this.asked, own, reduced: this.reduced };
    const found = await send("POST", `/api/sheets/${session.key}/reduction`, body);
    this.found = found;
    this.own = own;
    this.host.innerHTML = found.html;
    this.host.hidden = false;
    this.shown = found.own;
    this.show();
    return found;
  }
  /** An operation of the student, checked by the server. @param {string} text */
  async tried(text) {
    try {
      await this.refresh([...this.own, text]);
      this.field()?.focus();
    } catch (trouble) {
      if (!(trouble instanceof Trouble)) throw trouble;
      const why = /** @type {HTMLElement} */ (this.host.querySelector(".why"));
      why.textContent = trouble.message;
      why.hidden = false;
      this.field()?.focus();
    }
  }
  show() {
    const stages = [...this.host.querySelectorAll(".stage")];
    stages.forEach((stage, k) => /** @type {HTMLElement} */ (stage).toggleAttribute("hidden", k >= this.shown));
    this.enable("[data-back]", this.shown > this.found.own);
    this.enable("[data-on]", this.shown < stages.length);
    this.enable("[data-all]", this.shown < stages.length);
  }
  /** @param {string} name @param {boolean} on */
  enable(name, on) {
    const button = /** @type {HTMLButtonElement | null} */ (this.host.querySelector(name));
    if (button) button.disabled = !on;
  }
  /** @param {HTMLElement} target */
  pressed(target) {
    const does = (/** @type {string} */ name) => Boolean(target.closest(`[data-${name}]`));
    if (does("close")) return this.close();
    if (does("undo-own")) return this.refresh(this.own.slice(0, -1));
    if (does("back")) this.shown -= 1;
    else if (does("on")) this.shown += 1;
    else if (does("all")) this.shown = this.found.stages;
    else return undefined;
    this.show();
    const stages = this.host.querySelectorAll(".stage:not([hidden])");
    stages[stages.length - 1]?.scrollIntoView({ block: "nearest" });
    return undefined;
  }
}
