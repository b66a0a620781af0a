// @ts-check
/** Taking away: the sheet in a format, or a picture of the plot; and printing. */

import { Trouble } from "../sheet/api.js";
import { read, write } from "../sheet/session.js";
import { save } from "./tables.js";

const TAKEN = "axispath taken away"; // what was chosen last
const CM = 2.54 / 100; // of a pixel of a picture on paper

/** What is taken away, and how. @param {import("../sheet/instrument.js").Instrument} at */
export function takingPart(at) {
  const { plot, session } = at;
  return {
    takeAway: lastTaken(),
    takeTrouble: "",
    taking: false,

    openPicture() {
      this.measured();
      this.takeTrouble = "";
      dialog().showModal();
    },
    /** The size of the plot in what it is measured in now. */
    measured() {
      const by = this.takeAway.measure === "cm" ? CM : 1;
      const [width, height] = [plot.size.width, plot.size.height].map((side) => String(Math.round(side * by * 10) / 10));
      this.takeAway = { ...this.takeAway, width, height };
    },
    closePicture() {
      dialog().close();
    },
    async takePicture() {
      const { format, width, height, scale } = this.takeAway;
      const sides = { width: numberOf(width), height: numberOf(height), scale: Number(scale) };
      const wanted = { ...at.asSeen(), ...this.takeAway, ...sides };
      this.taking = true;
      this.takeTrouble = "";
      try {
        const chosen = this.chosenFormat();
        const file = await at.made("Making the file", `/api/sheets/${session.key}/export`, wanted);
        if (!file) return;
        write(TAKEN, this.takeAway);
        save(file, `${session.state.file}.${chosen?.dataset.ending ?? format}`);
        this.closePicture();
        plot.canvas.focus();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.takeTrouble = trouble.message;
      } finally {
        this.taking = false;
      }
    },
    printSheet() {
      this.closePicture();
      window.print();
    },
    /** @returns {HTMLElement | null} */
    chosenFormat() {
      return document.querySelector(`#picture input[value="${CSS.escape(this.takeAway.format)}"]`);
    },
    get isPicture() {
      return "picture" in (this.chosenFormat()?.dataset ?? {});
    },
    get isSized() {
      return this.takeAway.measure !== "slide";
    },
    get isSharp() {
      return this.isSized && this.chosenFormat()?.dataset.pixels === "true";
    },
    get hasParts() {
      return this.chosenFormat()?.dataset.parts === "true";
    },
  };
}

const dialog = () => /** @type {HTMLDialogElement} */ (document.getElementById("picture"));

/** What was taken away last; of what is not there any more nothing is left. */
function lastTaken() {
  const parts = [...document.querySelectorAll('#picture input[name="part"]')].map((box) => /** @type {HTMLInputElement} */ (box).value);
  const usual = { format: "png", parts, width: "1200", height: "750", measure: "pixels", scale: "2", theme: "light", clear: false };
  const last = read(TAKEN) ?? {};
  const known = Object.keys(usual).filter((name) => typeof last[name] === typeof (/** @type {any} */ (usual)[name]));
  const found = { ...usual, ...Object.fromEntries(known.map((name) => [name, last[name]])) };
  found.parts = parts.filter((part) => Array.isArray(found.parts) && found.parts.includes(part));
  return document.querySelector(`#picture input[value="${CSS.escape(found.format)}"]`) ? found : usual;
}

/** A number as it is typed, with a point or a comma; 0 for none. @param {string} text */
const numberOf = (text) => Number(text.replace(",", ".")) || 0;
