import { createStore } from "./store";

/** The pool that was open last on this device: where the shortcuts of the home screen lead. */
export const lastPoolStore = createStore<string>("kumpan.last-pool", "", (text) =>
  /^[0-9a-f-]{36}$/.test(text) ? text : undefined,
);
