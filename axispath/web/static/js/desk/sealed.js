// @ts-check
/**
 * A sealed sheet: the time that is left, by the clock of the server; what the page reports of itself;
 * full screen; handing in. What cannot be reported now is reported when the network is there again.
 */

import { Trouble, send } from "../sheet/api.js";
import { read, write } from "../sheet/session.js";

const OFTEN = 10_000; // ms between two reports that the page is there
const SECOND = 1000;

/** @typedef {{id: string, token: string, name: string, left: number, open: boolean}} Seat */

/** @param {import("../sheet/instrument.js").Instrument} at */
export function sealedPart(at) {
  const { session } = at;
  /** @type {Seat} */
  let seat = at.start.seat;
  /** When the page learnt how long it goes on: a clock that nobody sets. */
  let learnt = performance.now();
  const memory = `axispath reports ${seat.id}`;
  /** Reports that wait, with when they happened. @type {{kind: string, at: number}[]} */
  let waiting = read(memory) ?? [];
  let sending = false;
  const left = () => Math.max(0, seat.left - (performance.now() - learnt) / SECOND);
  const clock = (/** @type {number} */ seconds) => {
    const whole = Math.ceil(seconds);
    return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
  };
  return {
    sealWords: "",
    sealTold: "",
    isOpen: seat.open,
    canBeFull: false,
    handInFace: "Hand in",
    sure: false,
    late: "",

    init() {
      at.events.on("refused", ({ change }) => this.refused(change));
      if (seat.open) {
        this.report("opened");
        document.addEventListener("visibilitychange", () => this.report(document.hidden ? "left" : "back"));
        window.addEventListener("blur", () => !document.hidden && this.report("left"));
        window.addEventListener("focus", () => this.report("back"));
        window.addEventListener("offline", () => this.report("lost"));
        window.addEventListener("online", () => this.report("found"));
        document.addEventListener("fullscreenchange", () => this.report(document.fullscreenElement ? "full" : "small"));
        setInterval(() => this.tell("here"), OFTEN);
      }
      setInterval(() => this.show(), SECOND);
      this.show();
    },
    show() {
      const seconds = left();
      this.canBeFull = this.isOpen && document.fullscreenEnabled && !document.fullscreenElement;
      if (this.isOpen && seconds <= 0) this.close();
      this.sealWords = this.isOpen ? `${seat.name}: ${clock(seconds)} left` : `${seat.name}: handed in`;
      if (!this.isOpen) this.sealTold = this.late || "It can be read, and not changed any more.";
      else if (waiting.length || session.offline) this.sealTold = "The network is away: what you do is kept here, and sent when it is back.";
      else if (seconds < 300) this.sealTold = "It is handed in by itself at the end.";
      else this.sealTold = "";
    },
    /** Something happened that is recorded: never twice in a row the same. @param {string} kind */
    report(kind) {
      if (!this.isOpen) return;
      const last = waiting[waiting.length - 1]?.kind ?? this.lastKind;
      if (kind === last) return;
      this.lastKind = kind;
      waiting.push({ kind, at: Date.now() });
      write(memory, waiting);
      this.flush();
    },
    lastKind: "",
    async flush() {
      if (sending) return;
      sending = true;
      try {
        while (waiting.length) {
          const { kind, at: when } = waiting[0];
          const late = Math.round((Date.now() - when) / SECOND);
          await this.sent(kind, late > 5 ? `${late} s before this was received` : "");
          waiting = waiting.slice(1);
          write(memory, waiting.length ? waiting : null);
        }
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        if (!trouble.passing) {
          // The session is over: nothing more is recorded of it.
          waiting = [];
          write(memory, null);
        }
      } finally {
        sending = false;
        this.show();
      }
    },
    /** @param {string} kind @param {string} [detail] */
    async sent(kind, detail = "") {
      seat = await send("POST", `/api/h/${seat.token}/report`, { kind, detail });
      learnt = performance.now();
      if (!seat.open) this.close();
    },
    /** Tell that the page is there; who cannot be told now is told the next time. @param {string} kind */
    async tell(kind) {
      if (!this.isOpen) return;
      try {
        await this.flush();
        await this.sent(kind);
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
      }
      this.show();
    },
    async goFull() {
      try {
        await document.documentElement.requestFullscreen();
      } catch {
        this.canBeFull = false; // a browser that refuses goes on without
      }
    },
    async handIn() {
      if (!this.sure) {
        this.sure = true;
        this.handInFace = "Hand in for good";
        return;
      }
      try {
        seat = await send("POST", `/api/h/${seat.token}/hand-in`, {});
        this.close();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.sealTold = trouble.message;
      }
    },
    /** What came after the end is not in what was handed in; it is told, so that it can be said. @param {import("../sheet/session.js").Change} change */
    async refused(change) {
      await this.tell("here"); // whether it is over is for the server to say
      if (this.isOpen) return;
      const lines = ("edits" in change ? change.edits : []).map((/** @type {any} */ edit) => edit.text).filter(Boolean);
      this.late = `This came too late, and is not in what was handed in${lines.length ? ": " : "."}${lines.join("; ")}`;
      this.show();
    },
    /** From now on it is read only; a reload shows it so everywhere. */
    close() {
      if (!this.isOpen) return;
      this.isOpen = false;
      seat = { ...seat, open: false, left: 0 };
      document.querySelector(".sheet-page")?.classList.add("is-given");
      document.querySelector(".sealed")?.classList.add("is-closed");
      this.show();
    },
  };
}
