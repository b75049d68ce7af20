import { personId } from "../lib/person";
import { client, take } from "./client";

/** Take an entry of the journal back; it stays visible in the log as taken back. */
export function takeBack(entry_id: string, reason: string): Promise<unknown> {
  return take(
    client.POST("/api/v1/entries/{entry_id}/void", {
      params: { path: { entry_id } },
      body: { id: crypto.randomUUID(), at: null, person_id: personId(), reason },
    }),
  );
}
