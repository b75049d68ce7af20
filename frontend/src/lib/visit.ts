import { createStore } from "./store";

/** The pool at which this device is on a visit; empty where it is on none. */
export const visitStore = createStore<string>("kumpan.visit", "", (text) => text);
