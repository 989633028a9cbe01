export { makeApp } from "./app.ts";
