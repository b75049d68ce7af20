import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Tray } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";

type Line = Tray["lines"][number];

interface LoadListProps {
  trays: readonly Tray[];
  busy: boolean;
  onCount: (productId: string, amount: string) => Promise<boolean>;
}

/** What the day's sheets need, tray by tray, against what the truck has. */
export function LoadList({ trays, busy, onCount }: LoadListProps) {
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Load list
      </Heading>
      {trays.length === 0 && (
        <Text color="soft">
          By the last tests nothing goes in today. Take what the week may bring: chlorine and acid, apart.
        </Text>
      )}
      {trays.map((tray) => (
        <Box key={tray.title} mb="4">
          <Text fontWeight="700">{tray.title}</Text>
          <Text fontSize="note" color="soft" mb="2">
            {tray.caution}
          </Text>
          <Box as="ul" listStyleType="none" p="0" m="0">
            {tray.lines.map((line) => (
              <LoadLine key={line.product_id} line={line} busy={busy} onCount={onCount} />
            ))}
          </Box>
        </Box>
      ))}
    </Card>
  );
}

function LoadLine({ line, busy, onCount }: { line: Line } & Omit<LoadListProps, "trays">) {
  const [counting, setCounting] = useState(false);
  return (
    <Box as="li" py="2" borderTop="1px solid" borderColor="hairline">
      <Grid templateColumns="minmax(0,1fr) auto" columnGap="3" alignItems="baseline">
        <Text fontWeight="600">{line.label}</Text>
        <Text fontWeight="700">{line.need_text}</Text>
      </Grid>
      <Flex justify="space-between" align="center" gap="3">
        <Text
          fontSize="note"
          fontWeight={line.short_text ? "600" : "400"}
          color={line.short_text ? "ink" : "soft"}
        >
          On the truck: {line.on_truck_text}
          {line.short_text && `; load ${line.short_text} more`}
        </Text>
        {!counting && (
          <SideButton data-noprint aria-label={`Count ${line.label}`} onClick={() => setCounting(true)}>
            Count
          </SideButton>
        )}
      </Flex>
      {counting && <Count line={line} busy={busy} onCount={onCount} close={() => setCounting(false)} />}
    </Box>
  );
}

const { Field } = fieldsOf<{ amount: string }>();

function Count({
  line,
  busy,
  onCount,
  close,
}: { line: Line; close: () => void } & Omit<LoadListProps, "trays">) {
  const kit = useKit<{ amount: string }>({
    start: { amount: "" },
    send: async ({ amount }) => {
      if (await onCount(line.product_id, amount)) close();
    },
  });
  return (
    <KitForm kit={kit}>
      <Flex gap="2" align="end" mt="1">
        <Field name="amount" label={`${line.label} on the truck now`} placeholder="2 gal, or 0" autoFocus />
        <SideButton type="submit" disabled={busy || kit.form.watch("amount").trim() === ""}>
          Keep
        </SideButton>
      </Flex>
    </KitForm>
  );
}
