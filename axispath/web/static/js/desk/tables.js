// @ts-check
/** The Values page of the desk: which table, which rows, which columns, and taking it away. */

import { Trouble, send, sendText } from "../sheet/api.js";
import { Grid } from "./grid.js";
import { unwatched } from "../sheet/underway.js";

const LARGEST = 100_000; // characters of a file with numbers

/** The Values page. @param {import("../sheet/instrument.js").Instrument} at */
export function tablesPart(at) {
  const { events, plot, session, sliders } = at;
  const start = at.start.tables;
  /** @type {Grid} */ let grid;
  /** Columns as they are shown, where the table names none itself. @type {string[]} */
  let shown = [];

  return {
    tables: start,
    tableId: start[0].id,
    table: { ...start[0] },
    tableTyped: false,
    tableTrouble: "",
    newColumn: "",
    tableSliders: /** @type {string[]} */ ([]),
    /** Functions of two numbers. */
    ofTwo: /** @type {string[]} */ ([]),
    tableLanes: /** @type {{id: string, name: string}[]} */ ([]),

    init() {
      const asked = () => at.page === "values" && this.refreshTable();
      events.on("changed", ({ state }) => this.showTables(state.tables, session.waiting.some(setsTable)));
      events.on("refresh", asked);
      events.on("turn", asked);
      events.on("sliding", (how) => how === "lists" && asked());
      events.on("reading", ({ x, put }) => (!put || at.page === "values") && this.tableRead(x, put));
      this.tableLanes = shownLanes(session.state);
      grid = new Grid(byId("values"), {
        ask: (wanted) => this.askRows(wanted),
        go: (x) => this.goToRow(x),
        finer: (row) => this.makeFiner(row),
        column: (act, index) => this.arrangeColumn(act, index),
        shown: (chunk) => {
          shown = chunk.columns.filter((column) => column.kind === "value").map((column) => column.text);
          this.tableSliders = chunk.sliders;
          this.ofTwo = chunk.ofTwo;
        },
      });
    },
    /** @param {object} wanted @returns {Promise<import("./grid.js").Chunk | null>} */
    async askRows(wanted) {
      try {
        const body = { head: session.state.head, preview: sliders.edits(), table: this.tableId, ...wanted };
        const view = this.table.by === "landmarks" ? { view: plot.view } : {};
        const chunk = await send("POST", `/api/sheets/${session.key}/values`, { ...body, ...view });
        // Rows of a table that was left meanwhile are not shown.
        return body.table === this.tableId ? chunk : null;
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        return null;
      }
    },
    refreshTable() {
      grid.refresh();
    },
    /** The reading line has moved. @param {number} x @param {boolean} put */
    tableRead(x, put) {
      if (this.table.variable === "x") grid.read(x, put);
    },
    /** @param {number} x */
    goToRow(x) {
      at.act("row_read", x);
      if (this.table.variable === "x") at.readInSight(x);
      else at.moving.putAlong(this.table.variable, x);
      grid.read(x, false);
    },
    /** @param {any[]} tables @param {boolean} typed whether rows were typed since these were asked for */
    showTables(tables, typed) {
      this.tables = tables;
      this.tableLanes = shownLanes(session.state);
      const known = tables.find((table) => table.id === this.tableId) ?? tables[0];
      this.tableId = known.id;
      if (!typed && !this.tableTyped) this.table = { ...known };
    },
    chooseTable() {
      this.table = { ...(this.tables.find((table) => table.id === this.tableId) ?? this.tables[0]) };
      this.tableTyped = false;
      grid.load({ first: 0, count: 160 });
    },
    typeTable() {
      this.tableTyped = true;
    },
    setTable() {
      this.tableTyped = false;
      this.tableTrouble = "";
      session.change({ edits: [{ do: "set table", table: { ...this.table, id: this.tableId } }] });
    },
    /** Other rows: what was made finer belongs to the old ones. */
    setRows() {
      this.table.finer = [];
      if (this.table.by === "points") this.table.variable = "x";
      this.setTable();
    },
    /** Rows at the landmarks of a lane, or no longer; none chosen stands for all. @param {string} id */
    chooseLandmarks(id) {
      const all = this.landmarkLanes.map((lane) => lane.id);
      const chosen = new Set(this.table.lanes.length ? this.table.lanes : all);
      if (!chosen.delete(id)) chosen.add(id);
      this.table.lanes = chosen.size === all.length ? [] : [...chosen];
      this.setRows();
    },
    addTable() {
      const taken = new Set(this.tables.map((table) => table.id));
      let number = 2;
      while (taken.has(`table${number}`)) number += 1;
      this.tableId = `table${number}`;
      this.table = { ...this.table, id: this.tableId, finer: [], columns: [] };
      this.setTable();
    },
    removeTable() {
      session.change({ edits: [{ do: "remove table", id: this.tableId }] });
    },
    addColumn() {
      const text = this.newColumn.trim();
      if (!text) return;
      this.table.columns = [...shown, text];
      this.newColumn = "";
      this.setTable();
    },
    /** @param {string} act @param {number} index */
    arrangeColumn(act, index) {
      const columns = [...shown];
      const [moved] = columns.splice(index, 1);
      if (act !== "remove") columns.splice(index + (act === "left" ? -1 : 1), 0, moved);
      if (!columns.length) {
        events.tell("words", "A table keeps at least one column.");
        return;
      }
      this.table.columns = columns;
      this.setTable();
    },
    usualColumns() {
      this.table.columns = [];
      this.setTable();
    },
    /** @param {number} row */
    async makeFiner(row) {
      try {
        const body = { head: session.state.head, preview: sliders.edits(), table: this.tableId, row };
        const { stretch } = await send("POST", `/api/sheets/${session.key}/values/finer`, body);
        this.table.finer = [...this.table.finer, stretch];
        this.setTable();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        events.tell("words", trouble.message);
      }
    },
    coarseAgain() {
      this.table.finer = [];
      this.setTable();
    },
    copyTable() {
      this.takeTable("\t");
    },
    saveTable() {
      this.takeTable(",");
    },
    /** @param {string} separator */
    async takeTable(separator) {
      try {
        const body = { head: session.state.head, preview: sliders.edits(), table: this.tableId, separator };
        const path = `/api/sheets/${session.key}/values.text`;
        if (separator === "\t") {
          // At once: a browser lets a page copy only right after a press.
          await navigator.clipboard.writeText(await sendText(path, body));
          events.tell("words", "The table is copied, at full precision.");
        } else {
          const file = await at.made("Writing the table", path, body);
          if (file) save(file, `${session.state.name}.csv`);
        }
      } catch (trouble) {
        if (trouble instanceof DOMException) events.tell("words", "The browser does not allow copying here.");
        else if (trouble instanceof Trouble) events.tell("words", trouble.message);
        else throw trouble;
      }
    },
    /** Rows from a file. @param {Event} event */
    async readNumbers(event) {
      const input = /** @type {HTMLInputElement} */ (event.target);
      const file = input.files?.[0];
      input.value = "";
      if (!file) return;
      if (file.size > LARGEST) {
        this.tableTrouble = `This file has ${Math.round(file.size / 1000)} kB; a list of numbers can have ${LARGEST / 1000} kB.`;
        return;
      }
      let text;
      try {
        text = await file.text();
      } catch {
        this.tableTrouble = `${file.name} cannot be read: it was moved or changed since it was chosen.`;
        return;
      }
      try {
        const found = await send("POST", "/api/numbers", { text });
        this.table.by = "list";
        this.table.places = found.places;
        this.setTable();
      } catch (trouble) {
        if (!(trouble instanceof Trouble)) throw trouble;
        this.tableTrouble = trouble.message;
      }
    },

    /** The function whose second number runs from column to column, or none. */
    setAcross() {
      this.table.columns = [];
      this.setRows();
    },
    get acrossChoices() {
      const { across } = this.table;
      const names = !across || this.ofTwo.includes(across) ? this.ofTwo : [...this.ofTwo, across];
      return ["", ...names].map((name) => ({ name, face: name || "no", chosen: name === across }));
    },
    get hasAcross() {
      return this.acrossChoices.length > 1;
    },
    get isAcross() {
      return Boolean(this.table.across);
    },
    get byStep() {
      return this.table.by === "step";
    },
    get byCount() {
      return this.table.by === "count";
    },
    get byList() {
      return this.table.by === "list";
    },
    get byLandmarks() {
      return this.table.by === "landmarks";
    },
    get overMany() {
      return this.table.by !== "points";
    },
    get ranged() {
      return this.table.by === "step" || this.table.by === "count";
    },
    get landmarkLanes() {
      const { lanes } = this.table;
      return this.tableLanes.map((lane) => ({ ...lane, chosen: !lanes.length || lanes.includes(lane.id) }));
    },
    get isFiner() {
      return this.table.finer.length > 0;
    },
    get hasOwnColumns() {
      return this.table.columns.length > 0;
    },
    get tableChoices() {
      return this.tables.map((/** @type {any} */ table, /** @type {number} */ k) => ({ id: table.id, face: `table ${k + 1}`, chosen: table.id === this.tableId }));
    },
    get variables() {
      const { variable } = this.table;
      const known = ["x", ...this.tableSliders];
      return (known.includes(variable) ? known : [...known, variable]).map((name) => ({ name, chosen: name === variable }));
    },
  };
}

/** @param {string} id @returns {HTMLElement} */
const byId = (id) => /** @type {HTMLElement} */ (document.getElementById(id));

/** @param {import("../sheet/session.js").Change} change */
const setsTable = (change) => "edits" in change && change.edits.some((/** @type {any} */ edit) => edit.do === "set table");

/** @param {any} state @returns {{id: string, name: string}[]} */
const shownLanes = (state) => state.lanes.filter((/** @type {any} */ lane) => lane.can.includes("searched") && !lane.hidden);

/** @param {Blob} file @param {string} name */
export function save(file, name) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  // Not at once: a busy browser may come to the file a moment later.
  unwatched(() => URL.revokeObjectURL(link.href), 60_000);
}
