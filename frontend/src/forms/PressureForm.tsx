import { Box, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { PRESSURE, type useMaintenance } from "../api/care";
import { SideButton } from "../components/Button";
import { useStore } from "../lib/store";
import { unitsStore } from "../lib/units";
import { fieldsOf, KitForm, useKit } from "./kit";

interface Typed {
  pressure: string;
}
const { Amount } = fieldsOf<Typed>();

interface PressureFormProps {
  care: ReturnType<typeof useMaintenance>;
  label: string;
  /** Beside the button. */
  children?: ReactNode;
}

/** What the filter's gauge shows, into the journal; what cannot be read is told at the field. */
export function PressureForm({ care, label, children }: PressureFormProps) {
  const units = useStore(unitsStore);
  const kit = useKit<Typed>({
    start: { pressure: "" },
    send: async ({ pressure }, form) => {
      if (await care.pressure(pressure, units === "metric")) form.reset();
    },
  });
  const unread = kit.form.formState.errors.root !== undefined;
  return (
    <KitForm kit={kit} data-noprint>
      <Flex gap="3" align={unread ? "center" : "end"} wrap="wrap">
        <Box w={unread ? "18rem" : "9rem"}>
          <Amount name="pressure" label={`${label}, ${units === "us" ? "psi" : "bar"}`} />
        </Box>
        <SideButton type="submit" disabled={kit.form.watch("pressure").trim() === "" || care.goes(PRESSURE)}>
          Note it
        </SideButton>
        {children}
      </Flex>
    </KitForm>
  );
}
