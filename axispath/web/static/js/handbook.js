// @ts-check
/** The handbook: typesets its examples. */

import { typeset } from "./lanes/formulas.js";

typeset(document);
