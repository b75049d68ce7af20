import { notify } from "./notice";

/** Put words where the device pastes from; says how it went. */
export async function copied(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    notify("Copied: paste it into a message.");
  } catch {
    notify("This browser does not let it be copied; mark the words by hand.");
  }
}
