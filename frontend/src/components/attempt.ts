import { notify } from "./notice";

/** Does something that a button asks for; what goes wrong is said in one sentence. */
export async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    notify(error instanceof Error ? error.message : String(error));
  }
}
