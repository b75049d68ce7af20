import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import type { Place } from "../../api/costs";
import { peopleQuery, poolsQuery } from "../../api/queries";
import type { InventoryLine } from "../../api/types";
import { SideButton } from "../../components/Button";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { stamp, useTell } from "./useTell";

export const PLACES: readonly { value: Place; label: string }[] = [
  { value: "here", label: "On the shelf, for every pool" },
  { value: "pool", label: "At one pool" },
  { value: "truck", label: "On a truck" },
  { value: "store", label: "In the store, not at hand" },
  { value: "gone", label: "Gone" },
];

interface Placed {
  place: Place;
  pool_id: string;
  technician_id: string;
  best_before: string;
}
const placed = fieldsOf<Placed>();

/** Where a product stands, which decides whose plans pour it, and the date printed on it. */
export function PlaceForm({ line }: { line: InventoryLine }) {
  const tell = useTell();
  const pools = useQuery(poolsQuery());
  const people = useQuery(peopleQuery());
  const kit = useKit<Placed>({
    start: {
      place: line.place,
      pool_id: line.place_pool_id ?? "",
      technician_id: line.place_technician_id ?? "",
      best_before: line.best_before ?? "",
    },
    send: async ({ place, pool_id, technician_id, best_before }) => {
      const body = {
        ...stamp(),
        product_id: line.id,
        place,
        pool_id: place === "pool" && pool_id !== "" ? pool_id : null,
        technician_id: place === "truck" && technician_id !== "" ? technician_id : null,
        best_before: best_before === "" ? null : best_before,
      };
      await tell(take(client.POST("/api/v1/shelf/places", { body })), `Noted where ${line.label} stands.`);
    },
  });
  const options = (pools.data?.pools ?? []).map((pool) => ({ value: pool.id, label: pool.settings.name }));
  return (
    <KitForm kit={kit}>
      <Flex gap="3" align="end" wrap="wrap">
        <Box w="15rem">
          <placed.Select name="place" label="It stands" options={PLACES} />
        </Box>
        {kit.form.watch("place") === "pool" && (
          <Box w="13rem">
            <placed.Select
              name="pool_id"
              label="Which pool"
              options={[{ value: "", label: "Choose" }, ...options]}
            />
          </Box>
        )}
        {kit.form.watch("place") === "truck" && (
          <Box w="13rem">
            <placed.Select
              name="technician_id"
              label="Whose truck"
              options={[
                { value: "", label: "Choose" },
                ...(people.data ?? []).map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
          </Box>
        )}
        <Box w="11rem">
          <placed.Field name="best_before" label="Date printed on it" type="date" />
        </Box>
        <SideButton type="submit">Save the place</SideButton>
      </Flex>
      <FormProblem shown={["pool_id", "technician_id", "best_before"]} />
    </KitForm>
  );
}
