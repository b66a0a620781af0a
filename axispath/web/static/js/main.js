// @ts-check
/** Starts the sheet page: one instrument, and the components that bind it to the page. */

import Alpine from "../vendor/alpine/alpine.esm.min.js";
import { coming, ready, start } from "./first.js";
import { deskPart } from "./desk/desk.js";
import { viewPart } from "./desk/looking.js";
import { looksPart } from "./desk/looks.js";
import { takingPart } from "./desk/taking.js";
import { readingPart } from "./desk/reading.js";
import { sealedPart } from "./desk/sealed.js";
import { solvePart } from "./desk/solve.js";
import { surfacePart } from "./desk/surface.js";
import { tablesPart } from "./desk/tables.js";
import { hearPart } from "./hear/hear.js";
import { entryPart } from "./lanes/entry.js";
import { plotPart, roomPart, sheetPart } from "./sheet/bar.js";
import { errandPart } from "./sheet/errands.js";
import { Instrument } from "./sheet/instrument.js";
import { movedTo } from "./sheet/session.js";

const moved = movedTo(start.id);
if (moved) location.replace(moved);
const instrument = new Instrument(start, coming);

/** Each component, by the name that templates bind it with. */
const PARTS = {
  sheet: sheetPart,
  looks: looksPart,
  taking: takingPart,
  view: viewPart,
  entry: entryPart,
  hear: hearPart,
  errand: errandPart,
  reading: readingPart,
  plot: plotPart,
  room: roomPart,
  desk: deskPart,
  tables: tablesPart,
  sealed: sealedPart,
  solve: solvePart,
  surface: surfacePart,
};
for (const [name, part] of Object.entries(PARTS)) Alpine.data(name, () => part(instrument));
Alpine.start();
instrument.begin();
ready();
