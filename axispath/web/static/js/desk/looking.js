// @ts-check
/** Where the plot looks: moving, zooming, framing, typed limits, and the views before and after. */

import { Trouble, send } from "../sheet/api.js";
import { Standing } from "../sheet/queue.js";
import { laneId } from "../sheet/session.js";
import { equalled, sameView, short, zoomed } from "../sheet/view.js";
import { cancel, soon } from "../sheet/underway.js";

const SAVE_VIEW = 400; // ms of rest after which a view is saved
const VIEWS_KEPT = 50;
const STANDARD = { left: -10, right: 10, bottom: -7, top: 7 };

/** Where the plot looks, and the card that says so. @param {import("../sheet/instrument.js").Instrument} at */
export function viewPart(at) {
  const { events, plot, session } = at;
  /** @type {import("../sheet/view.js").View[]} */
  const views = [];
  /** Views that were left by going back. @type {import("../sheet/view.js").View[]} */
  const ahead = [];
  /** @type {import("../sheet/view.js").View} */
  let resting = { ...at.start.view };
  /** What a view that nobody has chosen has to show, whatever the size of the plot. @type {import("../sheet/view.js").View | null} */
  let framed = at.start.view.chosen ? null : { ...at.start.view };
  /** Whether the view was moved since the server last heard of it. */
  let looked = false;
  /** @type {number | undefined} */
  let timer;
  const standing = new Standing();

  return {
    /** Points that were put by clicks, since the mode was turned on. @type {string[]} */
    put: [],
    /** @type {Record<string, string>} */
    limits: { left: "", right: "", bottom: "", top: "" },
    viewTrouble: "",
    viewCount: 0,
    lanesTold: 0,
    aheadCount: 0,
    boxing: false,
    putting: false,
    /** Points in a box that was drawn. @type {string[]} */
    /** @type {string[] | null} Points in the last box drawn around points. */
    gathered: null,
    snapping: false,

    init() {
      events.on("look", ({ view, lead }) => this.look(view, lead));
      events.on("changed", ({ state, stepped }) => {
        this.answerView(state.view, stepped);
        this.lanesTold += 1;
      });
      events.on("grounded", () => this.grounded());
      Object.assign(at.acts, {
        frame: (/** @type {string | undefined} */ id) => this.frame(id),
        fit: () => this.fit(),
        "standard view": () => this.standardView(),
        "previous view": () => this.previousView(),
        "next view": () => this.nextView(),
        box: () => this.toggleBox(),
        boxed: () => this.toggleBox(false),
        "put points": () => this.togglePutting(),
        put: (/** @type {{x: number, y: number}} */ place) => this.putPoint(place),
        gather: (/** @type {import("../sheet/view.js").View} */ box) => this.gather(box),
        snap: () => this.toggleSnapping(),
      });
      this.showLimits();
    },
    /** The plot has another size. */
    fit() {
      const { chosen } = plot.view;
      plot.view = { ...plot.view, ...this.fitted(chosen ? plot.view : (framed ?? plot.view), chosen ? "x" : "all") };
      this.showLimits();
    },
    /** Grid, axes or scale have changed. */
    grounded() {
      const { chosen } = plot.view;
      const view = this.fitted(plot.view, "all");
      if (sameView(view, plot.view)) {
        plot.ask();
      } else if (chosen) {
        this.look(view, "all");
      } else {
        plot.view = view;
        this.showLimits();
        at.viewMoved();
      }
    },

    look(/** @type {import("../sheet/view.js").View} */ view, /** @type {"x" | "y" | "all"} */ lead = "x") {
      standing.ask();
      this.viewTrouble = "";
      looked = true;
      framed = null;
      plot.view = { ...this.fitted(view, lead), chosen: true };
      this.showLimits();
      at.viewMoved();
      cancel(timer);
      timer = soon(() => this.rest(), SAVE_VIEW);
    },
    /** Another view all at once: the one before can be gone back to, however short it was there. @param {import("../sheet/view.js").View} view @param {boolean} [chosen] */
    jump(view, chosen = true) {
      if (looked) this.rest();
      this.look(view, chosen ? "x" : "all");
      plot.view.chosen = chosen;
      framed = chosen ? null : view;
      this.rest();
    },
    /** A change was answered, with the view that the server has. @param {import("../sheet/view.js").View} view @param {boolean} stepped */
    answerView(view, stepped) {
      // A view that was moved since the change was sent is not taken back, but told; nor does one that
      // was framed move what a hand aims at, or whose limits are being typed.
      const typing = document.activeElement?.id.startsWith("view-");
      const aimed = !view.chosen && (plot.view.chosen || plot.underHand || typing);
      const moved = looked || session.view || aimed;
      if (!stepped && aimed && !sameView(view, plot.view)) this.standStill();
      if (!stepped && !moved && !sameView(view, plot.view)) this.showView(view);
      session.view = null;
      if (moved && !looked && !sameView(view, plot.view)) session.saveView(plot.view);
    },
    /** The view as it is, however it came to be: it is framed by hand alone from now on. */
    standStill() {
      if (!plot.view.chosen) this.look({ ...plot.view });
    },
    /** The view has come to rest: save it, and remember the one before. */
    rest() {
      cancel(timer);
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
    showView(/** @type {import("../sheet/view.js").View} */ view) {
      if (resting && !sameView(resting, view)) views.push(resting);
      this.countViews();
      framed = view.chosen ? null : view;
      plot.view = { ...this.fitted(view, view.chosen ? "x" : "all") };
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
    /** @param {import("../sheet/view.js").View[]} from @param {import("../sheet/view.js").View[]} to */
    turnView(from, to) {
      cancel(timer);
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
        cancel(timer);
        looked = false;
        session.saveView(plot.view);
      }
      this.countViews();
    },
    standardView() {
      this.jump(STANDARD);
    },
    /** The view with equal scales where they are wanted. @param {import("../sheet/view.js").View} view @param {"x" | "y" | "all"} [lead] */
    fitted(view, lead = "x") {
      return plot.ground.typed.equal ? equalled(view, plot.size, lead) : view;
    },
    /** @param {boolean} [on] */
    toggleBox(on) {
      this.boxing = plot.boxing = typeof on === "boolean" ? on : !this.boxing;
    },
    /** A view that shows what matters, of all lanes or of one. @param {string | Event} [id] */
    async frame(id) {
      const lane = typeof id === "string" ? id : "";
      const stands = standing.ask();
      try {
        const view = await send("POST", `/api/sheets/${session.key}/frame`, { head: session.state.head, preview: at.sliders.edits(), lane });
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
      const { left, right, bottom, top } = plot.view;
      this.look(zoomed(plot.view, factor, (left + right) / 2, (bottom + top) / 2));
    },
    async setLimits(/** @type {Event | undefined} */ event) {
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

    /** Points that lie in a box. @param {import("../sheet/view.js").View} box */
    gather({ left, right, bottom, top }) {
      const inside = (/** @type {[number, number]} */ [x, y]) => x >= left && x <= right && y >= bottom && y <= top;
      this.gathered = plot.shown().filter((lane) => lane.strip === "point" && lane.places.some(inside)).map((lane) => lane.id);
    },
    /** A point where the plot was clicked. @param {{x: number, y: number}} place */
    putPoint({ x, y }) {
      const id = laneId();
      session.change({ edits: [{ do: "add lane", text: `(${x}, ${y})`, id }] });
      this.put.push(id);
    },
    /** The points in the last box, or those that were put, as far as they are on the sheet. */
    get together() {
      // Lanes come with answers.
      return this.lanesTold >= 0 ? (this.gathered ?? this.put).filter((id) => plot.lane(id)) : [];
    },
    get hasGathered() {
      return this.together.length > (this.gathered ? 0 : 1);
    },
    get modeText() {
      const names = this.together.map((id) => plot.lane(id)?.name ?? "");
      if (this.gathered) return names.length ? `In the box: ${names.join(", ")}.` : "No point lies in the box.";
      return names.length ? `Put: ${names.join(", ")}.` : "Each click puts a point; a box drawn around points gathers them.";
    },
    gatherData() {
      at.act("make data", this.taken());
      this.togglePutting();
    },
    gatherList() {
      this.gatherEdits((ids) => [{ do: "gather points", ids }]);
    },
    gatherHide() {
      this.gatherEdits((ids) => ids.map((id) => ({ do: "show lane", id, shown: false })));
    },
    gatherRemove() {
      this.gatherEdits((ids) => ids.map((id) => ({ do: "remove lane", id })));
    },
    /** @param {(ids: string[]) => object[]} edits what is done to the points that stand together */
    gatherEdits(edits) {
      session.change({ edits: edits(this.taken()) });
    },
    /** The points that stand together, which then do no longer. */
    taken() {
      const ids = [...this.together];
      this.gathered = null;
      this.put = [];
      return ids;
    },
    togglePutting() {
      this.gathered = null;
      this.putting = plot.putting = !this.putting;
      this.put = [];
      if (this.putting) this.standStill();
      // Lanes that come in take no height from under the hand.
      at.divider.hold(this.putting);
    },
    toggleSnapping() {
      this.snapping = at.points.snapping = !this.snapping;
    },
    get plotClass() {
      return this.boxing || this.putting ? "is-boxing" : "";
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
