import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { postOrKeep, SAVED } from "../api/outbox";
import { MainButton, SideButton } from "../components/Button";
import { notify } from "../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../forms/kit";
import { personId } from "../lib/person";
import { type ActiveStop, endRound } from "../lib/round";

interface RoundStopProps {
  stop: ActiveStop;
  position: number;
  of: number;
  next: ActiveStop | undefined;
}

interface Visit {
  note: string;
  internal: string;
  trade: string;
  back: boolean;
}
const { Field, Check } = fieldsOf<Visit>();

// On a phone the bar is one row, so that the page's own work stays in reach.
const SNUG = { base: "2.5", md: "5" };

/** The stop one stands at: a note, and on to the next. Loaded once a round is driven. */
export function RoundStop({ stop, position, of, next }: RoundStopProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const kit = useKit<Visit>({ start: { note: "", internal: "", trade: "", back: false }, send: finish });
  const busy = kit.form.formState.isSubmitting;
  const onward = next === undefined ? "End the round" : `Next stop: ${next.name}`;

  async function finish({ note, internal, trade, back }: Visit) {
    const body = {
      id: crypto.randomUUID(),
      person_id: personId(),
      note,
      needs_return: back,
      trade,
      internal_note: internal,
    };
    const kept = await postOrKeep(
      "/api/v1/pools/{pool_id}/visits",
      { path: { pool_id: stop.id } },
      body,
      `Visit at ${stop.name}`,
    );
    notify(
      kept === SAVED ? "Kept on this device; it is sent when the server answers." : `${stop.name}: done.`,
    );
    await queries.invalidateQueries({ queryKey: ["round"] });
    if (next === undefined) {
      endRound();
      void navigate("/round");
    } else void navigate(`/pools/${next.id}/test`);
  }

  return (
    <Box
      as="aside"
      aria-label="Round"
      bg="card"
      borderTop="2px solid"
      borderColor="ink"
      px={{ base: "4", md: "7" }}
      py={{ base: "1", md: "2" }}
      data-noprint
    >
      <KitForm kit={kit}>
        {open && (
          <Box maxW="40rem" py="2">
            <Field name="note" label="Note to the owner" />
            <Box mt="2">
              <Field name="trade" label="For a licensed trade" />
            </Box>
            <Box mt="2">
              <Field
                name="internal"
                server="internal_note"
                label="Internal note"
                help="The owner and other firms never read it."
              />
            </Box>
            <Check name="back" label="This pool needs a return" />
          </Box>
        )}
        <FormProblem shown={open ? ["note", "trade", "internal_note"] : []} />
        <Flex gap={{ base: "2", md: "3" }} align="center" wrap="wrap">
          <Text fontWeight="600" flex="1" whiteSpace="nowrap">
            Stop {position} of {of}
          </Text>
          <SideButton px={SNUG} aria-expanded={open} onClick={() => setOpen(!open)}>
            Note
          </SideButton>
          <SideButton px={SNUG} onClick={endRound}>
            Leave
          </SideButton>
          <MainButton
            type="submit"
            minH="48px"
            px={{ base: "3", md: "4" }}
            disabled={busy}
            whiteSpace="nowrap"
            gap="0"
            aria-label={onward}
          >
            {next === undefined ? onward : "Next stop"}
            {next !== undefined && (
              <Text as="span" display={{ base: "none", md: "inline" }}>
                {`: ${next.name}`}
              </Text>
            )}
          </MainButton>
        </Flex>
      </KitForm>
    </Box>
  );
}
