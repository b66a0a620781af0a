/** The contracts inside the page: what parts hold in common, and what they tell one another. */

import type { Lane, Mark } from "../drawing/plot.js";
import type { Change } from "./session.js";
import type { Trouble } from "./api.js";
import type { View } from "./view.js";
import type { Edit, Equation, Ground, Slide, Table } from "./schema.js";

/** A ground as it was typed, and what it comes to. */
export interface ShownGround {
  typed: Ground;
  ticks: { x: import("../drawing/ticks.js").Step; y: import("../drawing/ticks.js").Step };
  /** Whether angles are written in degrees. */
  degrees: boolean;
  title: string;
  xLabel: string;
  yLabel: string;
  legend: string;
}

/** A lane as the server sends it: for the scripts, and as HTML. */
export type SentLane = Lane & { html: string; signature: string; slider: import("../lanes/sliders.js").Slider | null };

/** A sheet as the server has it. */
export interface State {
  id: string;
  head: number;
  /** The link of the hand-out that a visitor turns; null for a sheet of one's own. */
  handout: string | null;
  name: string;
  unit: string;
  undo: string;
  redo: string;
  view: View;
  lanes: SentLane[];
  tables: Table[];
  equations: Equation[];
  ground: ShownGround;
  question: string | null;
  told?: string;
  /** The page of the desk on which a line has gone that was typed as a lane. */
  page?: string;
}

/** What the page comes with. */
export interface Start extends State {
  words: { name: string; signature: string; help: string }[];
  /** The sitting in a sealed sheet; null elsewhere. */
  seat: any;
}

/** Lanes that are on the plot for a while. */
export interface Temporary {
  edits: Edit[];
  lanes: SentLane[];
}

/** Landmarks of a view, as the server answers. */
export interface Marks {
  lanes: (import("../lanes/strips.js").LanePath & { landmarks: Mark[] })[];
  crossings: { lanes: string[]; landmarks: Mark[] }[];
}

/** The same with how they are listed and told. */
export interface Paths extends Marks {
  landmarks: string | null;
  explanation: string;
  canFrame: boolean;
  words: string;
  settled: string;
  goesOn: boolean;
}

/** What is told, by name. */
export interface Told {
  /** A change was answered. `stepped` is undo or redo. */
  changed: { state: State; change: Change | null; stepped: boolean };
  /** A change was refused. */
  refused: { trouble: Trouble; change: Change };
  /** Whether all is saved has changed. */
  status: null;
  /** All that depends on the sheet is to be asked anew. */
  refresh: null;
  /** A slider moves. `often` is told at most some times a second, `lists` less often. */
  sliding: "often" | "lists";
  /** Look there; `lead` is the axis that a zoom was about. */
  look: { view: View; lead?: "x" | "y" };
  /** The view is another, and is at rest by now where `rested`. */
  looked: { rested: boolean };
  /** Read at x, and at y where that is meant; `put` there, or only in passing. */
  read: { x: number; put: boolean; y?: number };
  /** The pointer has left the plot. */
  left: null;
  /** The reading has moved. */
  reading: { x: number; put: boolean; y?: number };
  /** Words for the person. */
  words: string;
  /** Words for whoever hears the page. */
  heard: string;
  /** A page of the desk is wanted. */
  turn: string;
  /** A solution was chosen on the plot. */
  solution: string;
  /** Landmarks of a view were found. */
  paths: Paths;
  /** Lanes that take long. */
  slow: string;
  /** Trails there are. */
  trails: boolean;
  /** The ground is another. */
  grounded: null;
  /** A part of the axis is chosen by hand. */
  restrict: { low: number; high: number; done: boolean };
  /** A search for landmarks was refused, or no longer is (empty). */
  searched: string;
}

export type { Change, Edit, Equation, Ground, Lane, Mark, Slide, Table, Trouble, View };
