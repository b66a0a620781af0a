// @ts-check
/** The handbook: typesets its examples. */

import { typeset } from "./formulas.js";

typeset(document);
