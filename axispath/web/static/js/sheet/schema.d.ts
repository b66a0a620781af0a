/**
 * What goes over the wire as JSON: documents, edits and requests.
 * Written by tools/schema_types.py from the models that check them; not to be edited.
 */

export interface AddBlock {
  do: "add block";
  text?: string;
  id?: string | null;
}

export interface AddData {
  do: "add data";
  name?: string;
  text?: string;
  id?: string | null;
}

export interface AddFit {
  do: "add fit";
  data: string;
  x: string;
  y: string;
  model?: string;
  degree?: number;
  formula?: string;
  weigh?: "" | "weights" | "errors";
  weight?: string;
  id?: string | null;
}

export interface AddLane {
  do: "add lane";
  text: string;
  id?: string | null;
  keep?: boolean;
}

export interface AddLines {
  do: "add lines";
  text: string;
}

export interface AddWork {
  do: "add work";
  text: string;
  id?: string | null;
}

export type AngleUnit = "rad" | "deg";

export interface ArrangeRows {
  id: string;
  do: "arrange rows";
  how: "rising" | "falling" | "where" | "sample";
  column?: string;
  condition?: string;
  count?: number;
  seed?: number;
}

export interface Block {
  text: string;
  unknowns: Unknown[];
  letters: ([string, "name" | "unit"])[];
  chosen: ([string, number])[];
  run: Run;
}

export interface Column {
  name: string;
  title: string;
  formula: string;
  cells: (number | null)[];
}

export interface Cover {
  on: boolean;
  fixed: boolean;
  groups: ("zeros" | "turning points" | "inflections" | "breaks" | "intersections" | "start and end" | "on the axes" | "turns" | "cusps" | "crossings of itself" | "distances from the pole" | "single points" | "corners" | "highest and lowest" | "saddles")[];
  lanes: string[];
}

export interface DataSet {
  columns: Column[];
  out: number[];
  x: string;
  y: string;
  errors: string;
  look: "points" | "histogram" | "box" | "dots";
  width: string;
}

export interface Document {
  format: 1;
  name: string;
  unit: AngleUnit;
  digits: number;
  notation: "" | "fixed" | "scientific" | "engineering";
  measures: "SI" | "US";
  view: View;
  ground: Ground;
  tables: Table[];
  equations: Equation[];
  lanes: Lane[];
  system: string;
  cover: Cover;
  found: Found[];
  questions: Question[];
}

export interface DrawData {
  id: string;
  do: "draw data";
  x?: string | null;
  y?: string | null;
  errors?: string | null;
  look?: "points" | "histogram" | "box" | "dots" | null;
  width?: string | null;
}

export interface DrawLevel {
  id: string;
  do: "draw level";
}

export interface DuplicateLane {
  id: string;
  do: "duplicate lane";
}

export interface Equation {
  text: string;
  unknown: string;
  low: string;
  high: string;
}

export interface Finer {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  table?: string | "";
  first?: number;
  count?: number;
  near?: number | null;
  view?: View | null;
  row: number;
}

export interface Fit {
  data: string;
  x: string;
  y: string;
  model: string;
  degree: number;
  weigh: "" | "weights" | "errors";
  weight: string;
  squares: boolean;
  band: boolean;
  starts: ([string, number])[];
  held: ([string, string])[];
}

export interface FoldLane {
  id: string;
  do: "fold lane";
  folded: boolean;
}

export interface Following {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  low?: string;
  high?: string;
  longer?: boolean;
  moving?: boolean;
  page?: boolean;
  along?: boolean;
  unfolded?: string[];
  states: Slide[][];
}

export interface Foreseeing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  width: number;
  height: number;
  states: Slide[][];
}

export interface ForgetEquation {
  do: "forget equation";
  text: string;
}

export interface Forming {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  lane: string;
}

export interface Found {
  key: string;
  kind: string;
  x: number;
  y: number | null;
  shown: boolean;
}

export interface Framing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  lane?: string | "";
}

export interface GatherPoints {
  do: "gather points";
  ids: string[];
}

export interface Ground {
  grid: "fine" | "coarse" | "polar" | "none";
  axes: "origin" | "edge";
  angles: "full" | "signed";
  equal: boolean;
  x_ticks: Ticks;
  y_ticks: Ticks;
  x_label: string;
  y_label: string;
  x_unit: string;
  y_unit: string;
  title: string;
  without: ("zeros" | "turning points" | "inflections" | "breaks" | "intersections" | "start and end" | "on the axes" | "turns" | "cusps" | "crossings of itself" | "distances from the pole" | "single points" | "corners" | "highest and lowest" | "saddles")[];
  legend: boolean;
  legend_x: number;
  legend_y: number;
}

export interface Guessing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  x?: number;
  y?: number | null;
  typed?: string;
  group?: string;
  lane?: string | "";
  change?: string;
}

export interface Hearing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  lane: string;
  low?: number | null;
  high?: number | null;
}

export interface Hinting {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  step?: number;
  group?: string;
  lane?: string | "";
  change?: string;
}

export interface KeepEquation {
  do: "keep equation";
  equation: Equation;
}

export interface Lane {
  id: string;
  text: string;
  name: string | null;
  value: boolean;
  runs: string | "-";
  at: number | null;
  colour: number;
  hidden: boolean;
  folded: boolean;
  slider: Slider;
  style: Style;
  samples: Samples;
  levels: string;
  note: string;
  data: DataSet | null;
  fit: Fit | null;
  block: Block | null;
  working: boolean;
  written: Written;
}

export interface LetRun {
  id: string;
  do: "let run";
  letter?: string;
}

export interface LockReport {
  sitting: string;
  locked: boolean;
  at: number;
  signature: string;
}

export interface Looking {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
}

export interface MoveAlong {
  id: string;
  do: "move along";
  x: number;
  y: number;
}

export interface MoveLane {
  id: string;
  do: "move lane";
  to: number;
}

export interface MovePoint {
  id: string;
  do: "move point";
  x: number;
  y: number;
}

export interface MoveQuestion {
  do: "move question";
  id: string;
  by: -1 | 1;
}

export interface MoveRow {
  id: string;
  do: "move row";
  row: number;
  x: number;
  y: number;
}

export interface MoveWork {
  id: string;
  do: "move work";
  working: boolean;
}

export interface NameData {
  id: string;
  do: "name data";
  name: string;
}

export interface Naming {
  name?: string;
}

export interface Numbers {
  text: string;
}

export interface Picturing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  width: number;
  height: number;
  patient?: boolean;
  only?: string[];
}

export interface PointsToData {
  do: "points to data";
  ids: string[];
  id?: string | null;
}

export interface Previewing {
  head: number;
  text: string;
}

export interface Question {
  id: string;
  kind: "landmarks" | "domain" | "solve" | "match" | "column" | "which" | "words";
  words: string;
  lane: string;
  other: string;
  group: "zeros" | "turning points" | "inflections" | "breaks" | "intersections" | "start and end" | "on the axes" | "turns" | "cusps" | "crossings of itself" | "distances from the pole" | "single points" | "corners" | "highest and lowest" | "saddles" | "";
  text: string;
  low: string;
  high: string;
  options: string[];
  places: string[];
  aim: ([string, number])[];
  decimals: number;
}

export interface Reading {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  x?: number;
  typed?: string;
  held?: number | null;
  tangent?: string | "";
  area?: string | "";
  against?: string | "";
}

export interface RemoveColumn {
  id: string;
  do: "remove column";
  index: number;
}

export interface RemoveLane {
  id: string;
  do: "remove lane";
}

export interface RemoveQuestion {
  do: "remove question";
  id: string;
}

export interface RemoveTable {
  do: "remove table";
  id: string;
}

export interface Rename {
  do: "rename";
  name: string;
}

export interface Replying {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  question?: string;
  writing?: Question | null;
  text?: string;
  rows?: string[];
  change?: string;
}

export interface Reporting {
  kind: string;
  detail?: string;
}

export interface Request {
}

export interface ReviseLane {
  id: string;
  do: "revise lane";
  text: string;
  keep?: boolean;
}

export interface Run {
  name: string;
  low: string;
  high: string;
  count: string;
}

export interface Samples {
  by: "" | "count" | "step";
  amount: string;
  joined: boolean;
}

export interface Searching {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  low?: string;
  high?: string;
  longer?: boolean;
  moving?: boolean;
  page?: boolean;
  along?: boolean;
  unfolded?: string[];
}

export interface SetBlock {
  id: string;
  do: "set block";
  block: Block;
}

export interface SetCells {
  id: string;
  do: "set cells";
  row: number;
  column: number;
  block: string[][];
}

export interface SetColour {
  id: string;
  do: "set colour";
  colour: number;
}

export interface SetColumn {
  id: string;
  do: "set column";
  index: number;
  name?: string | null;
  formula?: string | null;
}

export interface SetCover {
  do: "set cover";
  cover: Cover;
}

export interface SetDomain {
  id: string;
  do: "set domain";
  low?: string | null;
  high?: string | null;
}

export interface SetFit {
  id: string;
  do: "set fit";
  parameter?: string;
  held?: string | null;
  weigh?: "" | "weights" | "errors" | null;
  weight?: string | null;
  again?: boolean;
  squares?: boolean | null;
  band?: boolean | null;
}

export interface SetGround {
  do: "set ground";
  ground: Ground;
}

export interface SetLevels {
  id: string;
  do: "set levels";
  levels: string;
}

export interface SetNotation {
  do: "set notation";
  notation: "" | "fixed" | "scientific" | "engineering";
  digits: number;
  measures?: "SI" | "US" | null;
}

export interface SetNote {
  id: string;
  do: "set note";
  note: string;
}

export interface SetQuestion {
  do: "set question";
  question: Question;
}

export interface SetRows {
  id: string;
  do: "set rows";
  act: "insert" | "delete" | "leave out" | "take in";
  row: number;
  count?: number;
}

export interface SetSamples {
  id: string;
  do: "set samples";
  samples: Samples;
}

export interface SetSlider {
  id: string;
  do: "set slider";
  slider: Slider;
}

export interface SetStyle {
  id: string;
  do: "set style";
  style: Style;
}

export interface SetSystem {
  do: "set system";
  text: string;
}

export interface SetTable {
  do: "set table";
  table: Table;
}

export interface SetUnit {
  do: "set unit";
  unit: AngleUnit;
}

export interface SetWritten {
  id: string;
  do: "write line";
  written: Written;
}

export interface ShowLane {
  id: string;
  do: "show lane";
  shown: boolean;
}

export interface Slide {
  id: string;
  do: "slide";
  value: number;
}

export interface Slider {
  low: string;
  high: string;
  step: string;
  kind: "any" | "whole" | "angle";
  play: "once" | "round" | "there and back";
  speed: "1/4" | "1/2" | "1" | "2" | "4" | "8";
}

export interface SolveFor {
  id: string;
  do: "solve for";
  letter?: "x" | "y";
}

export interface Solving {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  text: string;
  unknown?: string;
  low?: string;
  high?: string;
  longer?: boolean;
}

export interface Spotting {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  x: number;
  y?: number;
  typed?: string;
}

export interface Style {
  own: string;
  thickness: "thin" | "medium" | "thick";
  dash: "usual" | "unbroken" | "dashes" | "dots" | "dashes and dots";
  markers: "none" | "discs" | "squares" | "bars";
  flag: boolean;
  trail: "none" | "curve" | "landmarks";
  place: boolean;
  joined: boolean;
}

export interface Surfacing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  lane: string;
}

export interface Table {
  id: string;
  by: "step" | "count" | "list" | "landmarks" | "points";
  start: string;
  stop: string;
  step: string;
  count: string;
  places: string;
  lanes: string[];
  variable: string;
  columns: string[];
  finer: ([string, string])[];
  points: boolean;
  changes: "" | "differences" | "ratios" | "both";
  across: string;
  across_start: string;
  across_stop: string;
  across_step: string;
}

export interface TableText {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  table?: string | "";
  first?: number;
  count?: number;
  near?: number | null;
  view?: View | null;
  separator?: "," | "	";
}

export interface Tabulating {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  table?: string | "";
  first?: number;
  count?: number;
  near?: number | null;
  view?: View | null;
}

export interface Taking {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  low?: string;
  high?: string;
  longer?: boolean;
  moving?: boolean;
  page?: boolean;
  along?: boolean;
  unfolded?: string[];
  format?: string;
  parts?: string[];
  width?: number;
  height?: number;
  measure?: "pixels" | "cm" | "slide";
  scale?: number;
  theme?: "light" | "dark";
  clear?: boolean;
  pinned?: string[];
  states?: Slide[][];
  reading?: number | null;
  held?: number | null;
  tangent?: string | "";
  area?: string | "";
  against?: string | "";
}

export interface TakingMany {
  sheets: string[];
  format?: string;
}

export interface Ticks {
  kind: "automatic" | "step" | "pi" | "degrees";
  step: string;
}

export interface Trailing {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  width: number;
  height: number;
  patient?: boolean;
  only?: string[];
  states?: Slide[][];
}

export interface Trying {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
}

export interface Unknown {
  name: string;
  low: string;
  high: string;
  start: string;
  unit: string;
}

export interface View {
  left: number;
  right: number;
  bottom: number;
  top: number;
  chosen: boolean;
}

export interface Watching {
  head: number;
  preview?: (AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion)[];
  view: View;
  text: string;
  unknown?: string;
  low?: string;
  high?: string;
  longer?: boolean;
  method: string;
  start?: string;
  second?: string;
}

export interface Written {
  form: "" | "decimal" | "exact" | "mixed" | "polar";
  notation: "" | "fixed" | "scientific" | "engineering" | "plain";
  digits: number | null;
  rests: boolean;
}

export type Edit = AddLane | AddLines | ReviseLane | SolveFor | RemoveLane | ShowLane | SetDomain | Slide | SetSlider | MoveLane | DuplicateLane | DrawLevel | MovePoint | GatherPoints | PointsToData | MoveAlong | LetRun | SetColour | SetNote | SetStyle | SetLevels | SetSamples | FoldLane | SetGround | SetUnit | Rename | AddWork | MoveWork | SetNotation | SetWritten | SetSystem | AddBlock | SetBlock | AddData | NameData | SetCells | SetRows | MoveRow | SetColumn | RemoveColumn | ArrangeRows | DrawData | AddFit | SetFit | SetTable | RemoveTable | KeepEquation | ForgetEquation | SetCover | SetQuestion | RemoveQuestion | MoveQuestion;
