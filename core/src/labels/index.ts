export { missingCharacters, spellOut, warnOfMissing } from "./label-text.ts";
