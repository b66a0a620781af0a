// @ts-check
/** Where the plot looks: moving, zooming, framing, typed limits, and the views before and after. */

import { Trouble, send } from "./api.js";
import { Standing } from "./queue.js";
import { equalled, sameView, short, zoomed } from "./view.js";

const SAVE_VIEW = 400; // ms of rest after which a view is saved
const VIEWS_KEPT = 50;
const STANDARD = { left: -10, right: 10, bottom: -7, top: 7 };

/**
 * The parts of the page's component that look.
 * @param {() => {session: import("./session.js").Session, plot: import("./plot.js").Plot, edits: () => object[]}} at
 * @param {import("./view.js").View} start
 */
export function lookingParts(at, start) {
  /** @type {import("./view.js").View[]} */
  const views = [];
  /** Views that were left by going back. @type {import("./view.js").View[]} */
  const ahead = [];
  /** @type {import("./view.js").View} */
  let resting = { ...start };
  /** Whether the view was moved since the server last heard of it. */
  let looked = false;
  /** @type {ReturnType<typeof setTimeout> | undefined} */
  let timer;
  const standing = new Standing();

  return {
    /** @type {Record<string, string>} */
    limits: { left: "", right: "", bottom: "", top: "" },
    viewTrouble: "",
    viewCount: 0,
    aheadCount: 0,
    boxing: false,

    look(/** @type {import("./view.js").View} */ view, /** @type {"x" | "y"} */ lead = "x") {
      const { plot } = at();
      standing.ask();
      this.viewTrouble = "";
      looked = true;
      plot.view = { ...this.fitted(view, lead), chosen: true };
      this.showLimits();
      this.viewMoved();
      clearTimeout(timer);
      timer = setTimeout(() => this.rest(), SAVE_VIEW);
    },
    /** Another view all at once: the one before can be gone back to, however short it was there. @param {import("./view.js").View} view @param {boolean} [chosen] */
    jump(view, chosen = true) {
      if (looked) this.rest();
      this.look(view);
      at().plot.view.chosen = chosen;
      this.rest();
    },
    /** A change was answered, with the view that the server has. @param {import("./view.js").View} view @param {boolean} stepped */
    answerView(view, stepped) {
      const { session, plot } = at();
      // A view that was moved since the change was sent is not taken back, but told.
      const moved = looked || session.view;
      if (!stepped && !moved && !sameView(view, plot.view)) this.showView(view);
      session.view = null;
      if (moved && !looked && !sameView(view, plot.view)) session.saveView(plot.view);
    },
    /** The view has come to rest: save it, and remember the one before. */
    rest() {
      const { session, plot } = at();
      clearTimeout(timer);
      if (resting && !sameView(resting, plot.view)) {
        views.push(resting);
        if (views.length > VIEWS_KEPT) views.shift();
        ahead.length = 0;
        this.countViews();
      }
      resting = { ...plot.view };
      looked = false;
      session.saveView(plot.view);
    },
    showView(/** @type {import("./view.js").View} */ view) {
      const { plot } = at();
      if (resting && !sameView(resting, view)) views.push(resting);
      this.countViews();
      plot.view = { ...this.fitted(view) };
      resting = { ...plot.view };
      this.showLimits();
    },
    countViews() {
      this.viewCount = views.length;
      this.aheadCount = ahead.length;
    },
    previousView() {
      this.turnView(views, ahead);
    },
    nextView() {
      this.turnView(ahead, views);
    },
    /** @param {import("./view.js").View[]} from @param {import("./view.js").View[]} to */
    turnView(from, to) {
      const { session, plot } = at();
      clearTimeout(timer);
      if (resting && !sameView(resting, plot.view)) {
        views.push(resting);
        ahead.length = 0;
      }
      const view = from.pop();
      if (view) {
        to.push({ ...plot.view });
        resting = { ...view };
        this.look(view);
        resting = { ...plot.view };
        clearTimeout(timer);
        looked = false;
        session.saveView(plot.view);
      }
      this.countViews();
    },
    standardView() {
      this.jump(STANDARD);
    },
    /** The view with equal scales where they are wanted. @param {import("./view.js").View} view @param {"x" | "y"} [lead] */
    fitted(view, lead = "x") {
      const { plot } = at();
      return plot.ground.typed.equal ? equalled(view, plot.size, lead) : view;
    },
    toggleBox() {
      this.boxing = !this.boxing;
    },
    toggleEqual() {
      this.ground.equal = !this.ground.equal;
      this.setGround();
    },
    nextGrid() {
      const kinds = ["fine", "coarse", "none"];
      this.ground.grid = kinds[(kinds.indexOf(this.ground.grid) + 1) % 3];
      this.setGround();
    },
    /** A view that shows what matters, of all lanes or of one. @param {string | Event} [id] */
    async frame(id) {
      const { session, edits } = at();
      const lane = typeof id === "string" ? id : "";
      const stands = standing.ask();
      try {
        const view = await send("POST", `/api/sheets/${session.key}/frame`, { head: session.state.head, preview: edits(), lane });
        if (stands()) this.jump(view, false);
      } catch (trouble) {
        const words = told(trouble);
        if (stands()) this.viewTrouble = words;
      }
    },
    zoomIn() {
      this.zoom(0.7);
    },
    zoomOut() {
      this.zoom(1 / 0.7);
    },
    zoom(/** @type {number} */ factor) {
      const { plot } = at();
      const { left, right, bottom, top } = plot.view;
      this.look(zoomed(plot.view, factor, (left + right) / 2, (bottom + top) / 2));
    },
    async setLimits(/** @type {Event | undefined} */ event) {
      const { session, plot } = at();
      const stands = standing.ask();
      try {
        const view = await send("POST", `/api/sheets/${session.key}/limits`, { head: session.state.head, ...this.limits });
        if (!stands()) return;
        const typing = /** @type {HTMLElement | null} */ (document.activeElement);
        if (event?.type === "submit") typing?.blur();
        this.viewTrouble = "";
        if (!sameView(view, plot.view)) this.jump(view);
        this.showLimits();
        if (event?.type === "submit") typing?.focus();
      } catch (trouble) {
        const words = told(trouble);
        if (stands()) this.viewTrouble = words;
      }
    },
    showLimits() {
      const { plot } = at();
      // Limits that could not be read stay to be mended.
      if (this.viewTrouble) return;
      const { left, right, bottom, top } = plot.view;
      const stepX = 10 ** Math.floor(Math.log10((right - left) / 1000));
      const stepY = 10 ** Math.floor(Math.log10((top - bottom) / 1000));
      const shown = {
        left: short(left, stepX),
        right: short(right, stepX),
        bottom: short(bottom, stepY),
        top: short(top, stepY),
      };
      // An answer must not overwrite the field that is being typed in.
      const typing = document.activeElement?.id.replace("view-", "") ?? "";
      this.limits = typing in shown ? { ...shown, [typing]: this.limits[typing] } : shown;
    },

    get noPreviousView() {
      return this.viewCount === 0;
    },
    get noNextView() {
      return this.aheadCount === 0;
    },
  };
}

/** @param {unknown} trouble */
function told(trouble) {
  if (trouble instanceof Trouble) return trouble.message;
  throw trouble;
}
