import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { InventoryLine } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { stamp, useTell } from "./useTell";

type Left = Record<string, string>;
const left = fieldsOf<Left>();

/** The whole shelf counted in one pass: what is typed is noted together, what is left empty stays as it is. */
export function CountShelf({ lines, done }: { lines: readonly InventoryLine[]; done: () => void }) {
  const tell = useTell();
  const [found, setFound] = useState<Readonly<Record<string, string>>>({});
  const kit = useKit<Left>({
    start: Object.fromEntries(lines.map((line) => [line.id, ""])),
    send: async (typed) => {
      const told = Object.fromEntries(Object.entries(typed).filter(([, text]) => text.trim() !== ""));
      const answered = take(client.POST("/api/v1/shelf/counts", { body: { ...stamp(), left: told } }));
      await tell(answered, "Counted.");
      setFound(Object.fromEntries((await answered).map(({ product_id, text }) => [product_id, text])));
    },
  });
  const nothing = Object.values(kit.form.watch()).every((text) => text.trim() === "");
  return (
    <KitForm kit={kit}>
      <Text mb="3">
        Type what is left of each, in bags, jugs or by weight: 2 1/2 jugs, half a bag, 12 lb, 0. Leave empty
        what was not counted.
      </Text>
      <Grid as="ul" listStyleType="none" p="0" m="0" gap="2">
        {lines.map((line) => (
          <Grid
            as="li"
            key={line.id}
            templateColumns={{ base: "minmax(0,1fr) 8rem", md: "minmax(0,1fr) 10rem" }}
            gap="3"
            alignItems="end"
            borderTop="1px solid"
            borderColor="hairline"
            pt="2"
          >
            <Box>
              <Text fontWeight="650">{line.label}</Text>
              <Text fontSize="note" color="soft">
                {found[line.id] ?? `By the books: ${line.stock_text}`}
              </Text>
            </Box>
            <left.Field name={line.id} label="Left" aria-label={`Left of ${line.label}`} />
          </Grid>
        ))}
      </Grid>
      <FormProblem shown={lines.map(({ id }) => id)} />
      <Flex gap="3" mt="4" wrap="wrap">
        <MainButton type="submit" disabled={nothing}>
          Note the count
        </MainButton>
        <SideButton onClick={done}>Back to the shelf</SideButton>
      </Flex>
    </KitForm>
  );
}
