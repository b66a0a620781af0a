// @ts-check
/** The Reading card: values at one x, differences to a second, tangent and area. */

import { Trouble, send } from "./api.js";
import { Queue, Standing, quietly } from "./queue.js";

const REST = 120; // ms without movement after which an area is computed

/**
 * The parts of the page's component that read.
 * @param {() => {session: import("./session.js").Session, plot: import("./plot.js").Plot,
 *   edits: () => object[], sight: (x: number) => void, changed: () => void, put: (x: number) => void}} at
 */
export function readingParts(at) {
  const readings = new Queue();
  const standing = new Standing();
  /** The reading that was put somewhere, to come back to when the pointer leaves. @type {number | null} */
  let placed = null;
  /** @type {ReturnType<typeof setTimeout> | undefined} */
  let resting;

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

    /** @param {number} x @param {boolean} [put] */
    read(x, put = true) {
      const { plot, changed } = at();
      if (put) {
        placed = x;
        standing.ask();
        this.readingTrouble = "";
      }
      if (put) at().put(x);
      plot.reading = x;
      if (plot.area && plot.held !== null) plot.area = { ...plot.area, low: Math.min(x, plot.held), high: Math.max(x, plot.held) };
      changed();
      this.askReading({ x });
      clearTimeout(resting);
      if (this.areaOn) resting = setTimeout(() => this.askReading({ x: plot.reading, ...this.areaWanted() }), REST);
    },
    /** The pointer has left: back to where the reading was put. */
    readingLeft() {
      if (placed !== null && placed !== at().plot.reading) this.read(placed, false);
    },
    readAgain() {
      const x = at().plot.reading;
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
          this.showReading(await this.fetchReading(wanted), "area" in wanted);
        }),
      );
    },
    /** @param {object} wanted @returns {Promise<any>} */
    fetchReading(wanted) {
      const { session, plot, edits } = at();
      const body = { held: plot.held, tangent: this.tangentOn ? this.readLane : "", ...wanted };
      return send("POST", `/api/sheets/${session.key}/reading`, { head: session.state.head, preview: edits(), ...body });
    },
    /** @param {number} x */
    placeTyped(x) {
      at().sight(x);
      /** @type {HTMLElement | null} */ (document.activeElement)?.blur();
    },
    /** @param {any} found @param {boolean} withArea */
    showReading(found, withArea) {
      const { plot } = at();
      this.hasReading = true;
      // What a person typed stays until it is answered, and while it could not be read.
      const typing = document.activeElement?.id === "reading-x" || this.readingAsked || this.readingTrouble;
      if (!typing) this.readingText = found.shown;
      this.heldText = found.held ?? "";
      this.stepText = found.step ?? "";
      this.readingRows = found.rows.map((/** @type {any} */ row) => ({ ...row, label: `${row.name}(x)`, hasSlope: row.y !== null, tone: `t${row.colour} k-${row.id}` }));
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
      const { plot } = at();
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
        const { plot } = at();
        this.areaOn = true;
        // Without a held reading the area begins where the student reads now.
        if (plot.held === null) plot.held = plot.reading;
      }
      this.readAgain();
    },
    dropArea() {
      this.areaOn = false;
      this.areaWords = [];
      at().plot.area = null;
    },
    chooseLane() {
      this.areaWords = [];
      if (this.areaAgainst === this.readLane) this.areaAgainst = "";
      this.readAgain();
    },
    keepTangent() {
      at().session.change({ edits: [{ do: "add lane", text: this.tangentLine }] });
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
