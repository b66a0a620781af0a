// @ts-check
/** Pictures as they come: a length, a head as JSON, and float32 numbers. */

/** @typedef {import("./plot.js").Shape} Shape */

/** @param {ArrayBuffer} data */
export function unpacked(data) {
  const headLength = new DataView(data).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(data, 4, headLength)));
  /** @param {{at: [number, number]}} shape */
  const drawn = ({ at: [start, count], ...shape }) => ({ ...shape, rows: new Float32Array(data, 4 + headLength + start * 4, count) });
  /** @param {any[]} lanes @returns {{id: string, shapes: Shape[]}[]} */
  const filled = (lanes) => lanes.map((lane) => ({ id: lane.id, shapes: lane.shapes.map(drawn) }));
  return { head, lanes: filled(head.lanes), filled };
}
