// @ts-check
/** What parts of the page tell one another, by name; which there are stands in internal.d.ts. */

/** @typedef {import("./internal.js").Told} Told */

export class Events {
  constructor() {
    /** @type {Map<string, ((detail: any) => void)[]>} */
    this.listeners = new Map();
  }

  /** @template {keyof Told} Name @param {Name} name @param {(detail: Told[Name]) => void} listener */
  on(name, listener) {
    this.listeners.set(name, [...(this.listeners.get(name) ?? []), listener]);
  }

  /** @template {keyof Told} Name @param {Name} name @param {Told[Name]} detail */
  tell(name, detail) {
    for (const listener of this.listeners.get(name) ?? []) listener(detail);
  }
}
