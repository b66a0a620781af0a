// @ts-check
/** Requests to the server. Every answer is JSON, but for pictures. */

import { unpacked } from "../drawing/wire.js";
import { during, pause } from "./underway.js";

/** A request that failed. `kind` is refused, conflict, trouble, busy or offline. */
export class Trouble extends Error {
  /** @param {string} kind @param {string} message @param {any} [body] */
  constructor(kind, message, body = {}) {
    super(message);
    this.kind = kind;
    this.body = body;
  }

  /** Whether the same request may succeed later. */
  get passing() {
    return ["offline", "busy", "signed out", "stale"].includes(this.kind);
  }
}

const token = () => document.querySelector('meta[name="csrf-token"]')?.getAttribute("content") ?? "";

const PASSING = 5; // digits of what shows for a moment only
const PATIENCE = 6; // times that a busy server is asked again
/** How many requests wait for a busy server; told to whoever listens for `axispath-busy`. */
let refused = 0;

/** @param {number} more */
function tellBusy(more) {
  refused += more;
  window.dispatchEvent(new CustomEvent("axispath-busy", { detail: refused > 0 }));
}

/**
 * One request; asked again for a while where the server says that it is busy.
 * @template Answer
 * @param {(response: Response) => Promise<Answer>} read
 * @param {string} method
 * @param {string} path
 * @param {unknown} [body]
 * @param {object} [more] further headers
 * @returns {Promise<Answer>}
 */
const request = (read, method, path, body, more = {}) => during(answered(read, method, path, body, more));

/** @template Answer @param {(response: Response) => Promise<Answer>} read @param {string} method @param {string} path @param {unknown} body @param {object} more */
async function answered(read, method, path, body, more) {
  for (let tried = 1; ; tried += 1) {
    try {
      return await read(await requestOnce(method, path, body, more));
    } catch (trouble) {
      if (!(trouble instanceof Trouble) || trouble.kind !== "busy" || tried === PATIENCE) throw trouble;
      tellBusy(1);
      // All who were refused at the same time should not come back at the same time.
      await pause(trouble.body.after * 1000 * (0.75 + Math.random() / 2) * tried);
      tellBusy(-1);
    }
  }
}

/** @param {string} method @param {string} path @param {unknown} body @param {object} more @returns {Promise<Response>} */
async function requestOnce(method, path, body, more) {
  let response;
  try {
    response = await fetch(path, {
      method,
      headers: { "Content-Type": body instanceof Blob ? "application/octet-stream" : "application/json", "X-CSRFToken": token(), ...more },
      body: body === undefined || body instanceof Blob ? body : JSON.stringify(body),
    });
  } catch {
    throw new Trouble("offline", "The server cannot be reached.");
  }
  if (response.ok) return response;
  const told = await response.json().catch(() => ({}));
  const message = told.message ?? "Something went wrong on the way to the server.";
  if (response.status === 429) throw new Trouble("busy", message, { ...told, after: Number(response.headers.get("Retry-After")) || 1 });
  const passing = response.status === 503 || response.status === 502 || response.status === 504;
  throw new Trouble(passing ? "offline" : (told.kind ?? "trouble"), message, told);
}

/** @param {string} method @param {string} path @param {unknown} [body] @returns {Promise<any>} */
export function send(method, path, body) {
  return request((response) => response.json(), method, path, body);
}

/**
 * Curves of a view, as float32 numbers relative to it.
 * @param {string} key @param {object} wanted
 * @returns {Promise<import("../drawing/plot.js").Picture>}
 */
export async function fetchPicture(key, wanted) {
  const { head, lanes } = await fetchCurves(`/api/sheets/${key}/picture`, wanted);
  return { view: head.view, shapes: new Map(lanes.map((lane) => [lane.id, lane.shapes])), cut: head.cut, told: head.told };
}

/** What a picture of the plot is asked for with. @param {number} head @param {{view: object, size: object}} plot @param {object[]} preview */
export const wantedPicture = (head, plot, preview) => ({ head, view: plot.view, ...plot.size, preview });

/** What a picture is about: one that is there is not asked for again. @param {string} key @param {object} wanted */
export const aboutPicture = (key, wanted) => JSON.stringify([key, wanted]);

/**
 * Curves in states that are going to show, one picture a state, perhaps of the first ones only.
 * @param {string} key @param {object} wanted
 * @returns {Promise<import("../drawing/plot.js").Picture[]>}
 */
export async function fetchFrames(key, wanted) {
  const { head, lanes, filled } = await fetchCurves(`/api/sheets/${key}/frames`, wanted);
  return head.frames.map((/** @type {any} */ frame) => ({
    view: head.view,
    shapes: new Map([...lanes, ...filled(frame.lanes)].map((lane) => [lane.id, lane.shapes])),
    cut: frame.cut,
    told: frame.told,
  }));
}

/** A number while it passes. @param {number | null} value */
const said = (value) => (value === null ? "—" : String(Number(value.toPrecision(PASSING))).replace("-", "−"));

/**
 * Landmarks in states that are going to show, perhaps of the first ones only.
 * @param {string} key @param {object} wanted @returns {Promise<import("./internal.js").Marks[]>}
 */
export async function fetchMarks(key, wanted) {
  const { states, groups } = await send("POST", `/api/sheets/${key}/marks`, wanted);
  /** @param {string} name @param {any[]} marks */
  const wide = (name, marks) => {
    /** @type {Record<string, number>} */
    const counts = {};
    return marks.map(([kind, x, y, more]) => {
      counts[kind] = (counts[kind] ?? 0) + 1;
      const label = `(${said(x)}, ${said(y)})`;
      return { key: `${name}:${kind}:${counts[kind]}`, kind, group: groups[kind], x, y, left: null, right: null, closed: true, label, ...more };
    });
  };
  return states.map((/** @type {any} */ state) => ({
    lanes: state.lanes.map((/** @type {any} */ lane) => ({ ...lane, landmarks: wide(lane.id, lane.landmarks) })),
    crossings: state.crossings.map((/** @type {any} */ one) => ({ ...one, landmarks: wide(one.key, one.landmarks) })),
  }));
}

/** What lanes left behind. @param {string} key @param {object} wanted @returns {Promise<import("../drawing/plot.js").Trails>} */
export async function fetchTrails(key, wanted) {
  const { head, lanes } = await fetchCurves(`/api/sheets/${key}/trails`, wanted);
  return { view: head.view, lanes, marks: head.marks, cut: head.cut };
}

/** @param {string} path @param {object} wanted */
async function fetchCurves(path, wanted) {
  return unpacked(await request((response) => response.arrayBuffer(), "POST", path, wanted));
}

/** @param {string} path @param {unknown} body @returns {Promise<string>} */
export function sendText(path, body) {
  return request((response) => response.text(), "POST", path, body);
}

/** A small file. @param {string} path @param {unknown} body @returns {Promise<Blob>} */
export function fetchFile(path, body) {
  return request(blobOf, "POST", path, body);
}

const blobOf = (/** @type {Response} */ response) => response.blob();

const SOON = 150; // ms to the first look at long work
const LATER = 1000; // ms between looks in the end

/**
 * A file that takes the server a while. `told` hears how far it is, as a part of 1 or null, and
 * gives false to give it up; then there is no file.
 * @param {string} path @param {unknown} body @param {(share: number | null) => boolean} told
 * @returns {Promise<Blob | null>}
 */
export async function fetchLong(path, body, told) {
  const asked = (/** @type {Response} */ response) => (response.status === 202 ? response.json() : response.blob());
  const begun = await request(asked, "POST", path, body, { Prefer: "respond-async" });
  if (begun instanceof Blob) return begun;
  const at = `/api/errands/${begun.errand}`;
  for (let wait = SOON; ; wait = Math.min(wait * 1.4, LATER)) {
    await pause(wait);
    const found = await send("GET", at).catch((trouble) => {
      // A server that is away for a moment goes on with the work when it is back.
      if (trouble instanceof Trouble && trouble.passing) return { state: "waiting", share: null };
      throw trouble;
    });
    if (found.state === "done") return request(blobOf, "GET", `${at}/content`);
    if (found.state === "failed") throw new Trouble("refused", found.message);
    if (found.state === "cancelled") return null;
    if (!told(found.share)) {
      await send("DELETE", at);
      return null;
    }
  }
}
