// @ts-check
/** The Reading card: values at one x, differences to a second, tangent and area. */

import { Trouble, send } from "../sheet/api.js";
import { Queue, Standing, quietly } from "../sheet/queue.js";
import { Timers } from "../sheet/throttle.js";

const REST = 120; // ms without movement after which an area is computed

/** The Reading card. @param {import("../sheet/instrument.js").Instrument} at */
export function readingPart(at) {
  const { events, plot, session } = at;
  const readings = new Queue();
  const standing = new Standing();
  /** The reading that was put somewhere, to come back to when the pointer leaves. @type {number | null} */
  let placed = null;
  const timers = new Timers();
  /** @type {Promise<{show: (shown: boolean) => void}> | null} */
  let spot = null;

  return {
    readingText: "",
    readingRows: /** @type {any[]} */ ([]),
    readingTrouble: "",
    /** What was typed and is not answered yet. */
    readingAsked: "",
    hasReading: false,
    heldText: "",
    stepText: "",
    readLane: "",
    tangentOn: false,
    tangentWords: "",
    tangentLine: "",
    areaOn: false,
    areaAgainst: "",
    areaWords: /** @type {string[]} */ ([]),

    init() {
      events.on("read", ({ x, put, y }) => this.read(x, put, y));
      events.on("refresh", () => this.besides());
      events.on("left", () => this.readingLeft());
      events.on("refresh", () => this.readAgain());
      events.on("sliding", (how) => how === "often" && this.readAgain());
      Object.assign(at.acts, { hold: () => this.hold(), tangent: () => this.toggleTangent(), area: () => this.toggleArea() });
    },

    openHearing() {
      at.act("hear");
    },
    /** A second reading at y is there with the first lane that has something to say of a place. */
    async besides() {
      const wanted = plot.lanes.some((lane) => lane.can.includes("place") && !lane.hidden);
      if (wanted && !spot) {
        spot = import("./spot.js").then(({ spotIn }) => spotIn(at, /** @type {HTMLElement} */ (document.getElementById("spot"))));
      }
      (await spot)?.show(wanted);
    },
    /** @param {number} x @param {boolean} [put] @param {number} [y] */
    read(x, put = true, y) {
      if (put) {
        placed = x;
        standing.ask();
        this.readingTrouble = "";
      }
      plot.reading = x;
      if (plot.area && plot.held !== null) plot.area = { ...plot.area, low: Math.min(x, plot.held), high: Math.max(x, plot.held) };
      at.redraw();
      events.tell("reading", { x, put, y });
      timers.later("remember", 300, () => at.remember());
      this.askReading({ x });
      timers.stop("area");
      if (this.areaOn) timers.later("area", REST, () => this.askReading({ x: plot.reading, ...this.areaWanted() }));
    },
    /** The pointer has left: back to where the reading was put. */
    readingLeft() {
      if (placed !== null && placed !== plot.reading) this.read(placed, false);
    },
    readAgain() {
      const x = plot.reading;
      if (x !== null) this.read(x, false);
    },
    readTyped() {
      const typed = this.readingText;
      // Enter and leaving the field both ask; the same is asked once.
      if (!typed.trim() || typed === this.readingAsked) return;
      this.readingAsked = typed;
      this.readingTrouble = "";
      const stands = standing.ask();
      readings.ask(async () => {
        try {
          const found = await this.fetchReading({ typed });
          if (!stands()) return;
          this.readingAsked = "";
          this.placeTyped(found.x);
        } catch (trouble) {
          if (!(trouble instanceof Trouble)) throw trouble;
          if (!stands()) return;
          this.readingAsked = "";
          this.readingTrouble = trouble.message;
        }
      });
    },
    typeReading() {
      this.readingTrouble = "";
    },
    areaWanted() {
      return this.areaOn && this.readLane ? { area: this.readLane, against: this.areaAgainst } : {};
    },
    /** The values at a place, as it moves. @param {{x?: number | null, area?: string, against?: string}} wanted */
    askReading(wanted) {
      readings.run(() =>
        quietly(async () => {
          const asked = this.readLane;
          this.showReading(await this.fetchReading(wanted), "area" in wanted);
          // The first answers say which lanes there are: what is told of one lane is asked for then.
          if (asked !== this.readLane && this.readLane && (this.tangentOn || this.areaOn)) this.readAgain();
        }),
      );
    },
    /** @param {object} wanted @returns {Promise<any>} */
    fetchReading(wanted) {
      const body = { held: plot.held, tangent: this.tangentOn ? this.readLane : "", ...wanted };
      return send("POST", `/api/sheets/${session.key}/reading`, { head: session.state.head, preview: at.sliders.edits(), ...body });
    },
    /** @param {number} x */
    placeTyped(x) {
      at.readInSight(x);
      // Whoever has gone on to another field meanwhile stays there.
      const active = /** @type {HTMLElement | null} */ (document.activeElement);
      if (active?.id === "reading-x") active.blur();
    },
    /** @param {any} found @param {boolean} withArea */
    showReading(found, withArea) {
      this.hasReading = true;
      // What a person typed stays until it is answered, and while it could not be read.
      const typing = document.activeElement?.id === "reading-x" || this.readingAsked || this.readingTrouble;
      if (!typing) this.readingText = found.shown;
      this.heldText = found.held ?? "";
      this.stepText = found.step ?? "";
      at.lanes.showReading(found.rows);
      this.readingRows = found.rows.map((/** @type {any} */ row) => ({ ...row, label: row.label, hasSlope: row.y !== null, tone: `t${row.colour} k-${row.id}` }));
      if (!found.rows.some((/** @type {any} */ row) => row.id === this.readLane)) this.readLane = found.rows[0]?.id ?? "";
      if (this.areaAgainst && !found.rows.some((/** @type {any} */ row) => row.id === this.areaAgainst)) this.areaAgainst = "";
      const points = [];
      for (const row of found.rows) {
        if (row.y !== null) points.push({ id: row.id, x: found.x, y: row.y });
        if (row.heldY !== null) points.push({ id: row.id, x: plot.held ?? 0, y: row.heldY });
      }
      plot.readingPoints = points;
      plot.tangent = found.tangent?.at ?? null;
      this.tangentWords = found.tangent?.words ?? "";
      this.tangentLine = found.tangent?.line ?? "";
      if (withArea && found.area) {
        plot.area = found.area.at;
        this.areaWords = found.area.words;
      }
      plot.ask();
    },
    /** Hold this reading, so that the next is compared with it; or let it go. */
    hold() {
      if (plot.held === null && plot.reading === null) return;
      plot.held = plot.held === null ? plot.reading : null;
      if (plot.held === null) this.dropArea();
      this.readAgain();
    },
    toggleTangent() {
      this.tangentOn = !this.tangentOn;
      this.readAgain();
    },
    toggleArea() {
      if (this.areaOn) {
        this.dropArea();
      } else {
        this.areaOn = true;
        // Without a held reading the area begins where the student reads now.
        if (plot.held === null) plot.held = plot.reading;
      }
      this.readAgain();
    },
    dropArea() {
      this.areaOn = false;
      this.areaWords = [];
      plot.area = null;
    },
    chooseLane() {
      this.areaWords = [];
      if (this.areaAgainst === this.readLane) this.areaAgainst = "";
      this.readAgain();
    },
    keepTangent() {
      session.change({ edits: [{ do: "add lane", text: this.tangentLine }] });
    },

    get noReading() {
      return !this.hasReading;
    },
    get isHeld() {
      return Boolean(this.heldText);
    },
    /** @param {string} id */
    isReadLane(id) {
      return id === this.readLane;
    },
    get canChoose() {
      return this.readingRows.length > 0;
    },
    get otherRows() {
      return this.readingRows.filter((row) => row.id !== this.readLane);
    },
  };
}
