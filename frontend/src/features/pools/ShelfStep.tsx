import { Text } from "@chakra-ui/react";
import { useFormContext, useWatch } from "react-hook-form";
import type { Choices } from "../../api/types";
import { Card } from "../../components/Card";
import { PickMany } from "../../components/Pick";
import type { PoolForm } from "./form";

/** What is at hand, at its usual strength; nothing picked means the usual shelf. */
export function ShelfStep({ chemicals }: { chemicals: Choices["chemicals"] }) {
  const { setValue } = useFormContext<PoolForm>();
  const picked = useWatch<PoolForm, "onShelf">({ name: "onShelf" });
  return (
    <Card as="section" aria-label="On the shelf">
      <PickMany
        label="Tap what you have"
        options={chemicals.map(({ key, name }) => ({ value: key, label: name }))}
        values={picked}
        onToggle={(key) =>
          setValue("onShelf", picked.includes(key) ? picked.filter((one) => one !== key) : [...picked, key])
        }
      />
      <Text mt="3" color="soft" fontSize="note">
        {picked.length === 0
          ? "Nothing tapped: plans are made with the usual shelf, and say what to buy."
          : "Each is taken at its usual strength until you write what its label says, under Products."}
      </Text>
    </Card>
  );
}
