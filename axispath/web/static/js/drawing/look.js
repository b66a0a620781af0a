// @ts-check
/** How things look, as the server's own pictures have it: core/sheet/look.py. */

/**
 * @typedef {{filled: boolean, lines: [number, number][][]}} Shape
 * @typedef {{usualDashes: number[][], dashes: Record<string, number[]>, widths: Record<string, number>,
 *   faint: number, pale: number, shade: number, unsettled: number, tint: number, label: number, border: number[], speck: number,
 *   hatch: {alpha: number, width: number, gap: number, angles: number[]}, band: number, joining: number, trail: number, dot: number, point: number, flag: number, ring: number,
 *   eye: number, asymptote: number[], rings: Record<string, "dot" | "closed" | "open">, shapes: Record<string, Shape>, lifted: Record<string, number>,
 *   ticks: {across: number, upwards: number, most: number, typed: number, partsOfPi: [number, number][], turns: number[]},
 *   polar: {rays: number, named: number, closest: number, most: number, room: number},
 *   view: {widest: number, narrowest: number, narrowestShare: number}}} Look
 */

/** @type {Look} */
export const LOOK = JSON.parse(document.getElementById("look")?.textContent ?? "{}");
