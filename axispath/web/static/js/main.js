// @ts-check
/** Starts the sheet page. */

import Alpine from "../vendor/alpine/alpine.esm.min.js";
import { sheet } from "./sheet.js";

Alpine.data("sheet", sheet);
Alpine.start();
