// @ts-check
/** The desk: which of its pages is shown; and landmarks on a part of the axis, or listed along x. */

import { isBlock } from "../sheet/cells.js";
import { DeskEdge } from "../hand/deskedge.js";
import { byId } from "../sheet/focus.js";
import { laneId, read } from "../sheet/session.js";
import { short } from "../sheet/view.js";
import { during, nextFrame } from "../sheet/underway.js";

/**
 * A page whose script comes with its first opening, as most sheets need none of it. Until then nothing of
 * the page can be used: a key or a click would be lost. Where the script cannot be had, the page says so.
 * What `open` shows at every opening is there before the page can be used, as it may move what is below it.
 * @template Page @param {string} name @param {(host: HTMLElement) => Promise<Page>} load
 * @param {(page: Page) => Promise<void>} [open]
 * @returns {() => Promise<Page | null>}
 */
function later(name, load, open) {
  /** @type {Promise<Page | null> | null} */
  let page = null;
  return () => {
    if (page) {
      if (open) page.then((found) => found && open(found));
      return page;
    }
    const host = byId(`${name}-page`);
    const why = byId(`${name}-late`);
    host.inert = true;
    why.hidden = true;
    page = during(load(host)).then(
      async (found) => {
        await open?.(found);
        host.inert = false;
        return found;
      },
      () => {
        page = null;
        why.hidden = false;
        return null;
      },
    );
    return page;
  };
}

/** @param {import("../sheet/instrument.js").Instrument} at */
export function deskPart(at) {
  const { asking, events, plot } = at;
  const tabs = () => /** @type {HTMLElement[]} */ ([...document.querySelectorAll(".desk-tabs [data-page]")]);
  const data = later("data", (host) => import("./data.js").then(({ dataIn }) => dataIn(at, host)));
  const working = later("working", (host) => import("./working.js").then(({ workingIn }) => workingIn(at, host)));
  const practise = later("practise", (host) => import("./practise.js").then(({ practiseIn }) => practiseIn(at, host)), (made) => made.open());
  const names = () => tabs().map((tab) => tab.dataset.page ?? "");
  /** @type {DeskEdge | null} */
  let edge = null;
  return {
    page: "landmarks",
    raised: false,
    restricting: false,
    only: { low: "", high: "" },
    onlyTrouble: "",
    order: "",

    init() {
      edge = new DeskEdge(/** @type {HTMLElement} */ (document.querySelector(".sheet-page")), byId("desk-edge"), byId("desk-toggle"));
      edge.turn(this.page);
      const left = read(at.memory()) ?? {};
      const wanted = names().includes(location.hash.slice(1)) ? location.hash.slice(1) : left.page;
      if (location.hash) history.replaceState(history.state, "", location.pathname);
      if (names().includes(wanted)) this.show(wanted);
      else if (names().length && !names().includes(this.page)) this.show(names()[0]);
      if (left.along) {
        this.order = "along";
        asking.only.along = true;
      }
      events.on("turn", (page) => {
        if (edge?.kept.away) edge.put(false);
        this.show(page);
      });
      // Calculations are at hand from anywhere; on a phone above everything else.
      at.acts.working = () => {
        this.raised = true;
        this.show("working");
      };
      at.acts.desk = () => edge?.kept.away && edge.put(false);
      at.acts.data = (/** @type {string} */ id) => this.openData(id);
      let made = "";
      at.acts["make data"] = (/** @type {string[]} */ ids) => {
        made = laneId();
        at.session.change({ edits: [{ do: "points to data", ids, id: made }] });
      };
      events.on("changed", ({ state }) => {
        if (!made || !state.lanes.some((lane) => lane.id === made)) return;
        this.openData(made);
        made = "";
      });
      at.acts.row = async (/** @type {string} */ id, /** @type {number} */ row) => {
        events.tell("turn", "data");
        (await data())?.goTo(id, row);
      };
      // Rows that are pasted anywhere but into a field, and files, are looked at as a data set.
      const look = async (/** @type {File} */ file) => {
        events.tell("turn", "data");
        (await data())?.look(file);
      };
      document.addEventListener("dragover", (event) => event.dataTransfer?.types.includes("Files") && event.preventDefault());
      document.addEventListener("drop", (event) => {
        const file = event.dataTransfer?.files[0];
        if (!file) return;
        event.preventDefault();
        look(file);
      });
      document.addEventListener("paste", (event) => {
        const text = event.clipboardData?.getData("text/plain") ?? "";
        const field = /** @type {HTMLElement} */ (event.target).closest("input, textarea, .data-page");
        const taken = field && !(field.id === "entry" && isBlock(text));
        if (taken || event.defaultPrevented || !text.trim().includes("\n")) return;
        event.preventDefault();
        look(new File([text], "pasted.txt"));
      });
      events.on("restrict", ({ low, high, done }) => this.restrict(low, high, done));
      events.on("searched", (trouble) => {
        this.onlyTrouble = trouble;
      });
    },
    /** @param {string} [id] */
    async openData(id) {
      if (id) {
        events.tell("turn", "data");
        (await data())?.choose(id);
      } else {
        (await data())?.refresh();
      }
    },
    async openWorking() {
      (await working())?.open();
    },
    openPractise() {
      practise();
    },
    /** @param {string} page */
    show(page) {
      this.page = at.page = page;
      edge?.turn(page);
      if (page === "data") this.openData();
      if (page === "working") this.openWorking();
      if (page === "practise") this.openPractise();
      at.remember();
    },
    /** @param {string} page */
    turnTo(page) {
      this.raised = !(this.raised && this.page === page);
      this.show(page);
      events.tell("turn", page);
      nextFrame(() => document.activeElement?.getAttribute("role") === "tab" && byId(`tab-${page}`).focus());
    },
    /** The next page of the desk, from its tabs. @param {KeyboardEvent} event */
    turnPage(event) {
      const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
      if (!step) return;
      const pages = names();
      const next = pages[(pages.indexOf(this.page) + step + pages.length) % pages.length];
      byId(`tab-${next}`).click();
      byId(`tab-${next}`).focus();
    },
    /** @param {string} page */
    isOn(page) {
      return this.page === page;
    },
    get deskClass() {
      return this.raised ? "is-raised" : "";
    },

    // Landmarks on a part of the axis

    /** @param {number} low @param {number} high @param {boolean} done */
    restrict(low, high, done) {
      this.only = { low: short(low, 1e-12), high: short(high, 1e-12) };
      plot.only = { low, high };
      plot.ask();
      if (!done) return;
      this.restricting = plot.restricting = false;
      this.setOnly();
    },
    setOnly() {
      const ends = [this.only.low, this.only.high].map(Number);
      const typed = this.only.low.trim() || this.only.high.trim();
      const low = this.only.low.trim() ? ends[0] : plot.view.left;
      const high = this.only.high.trim() ? ends[1] : plot.view.right;
      plot.only = typed && Number.isFinite(low) && Number.isFinite(high) ? { low, high } : null;
      this.onlyTrouble = "";
      Object.assign(asking.only, { low: this.only.low, high: this.only.high });
      asking.path();
      at.redraw();
    },
    toggleRestricting() {
      this.restricting = plot.restricting = !this.restricting;
    },
    clearOnly() {
      this.only = { low: "", high: "" };
      this.setOnly();
    },
    setOrder() {
      asking.only.along = this.order === "along";
      at.remember();
      asking.path();
    },
    get hasOnly() {
      return Boolean(this.only.low || this.only.high);
    },
  };
}
