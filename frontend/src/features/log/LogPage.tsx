import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { client, take } from "../../api/client";
import { photosQuery } from "../../api/photos";
import { historiesQuery, logQuery, poolQuery, seasonQuery } from "../../api/queries";
import type { LogLine } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { AllPhotos } from "../../components/Photos";
import { PoolHeader, SignShape } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { coming } from "../../lib/coming";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { clock, dayKey, dayName } from "../../lib/times";
import { unitsStore } from "../../lib/units";
import { HistoryCard } from "./HistoryCard";
import { LogEntryCard } from "./LogEntryCard";
import { LogFiles } from "./LogFiles";

const PAGE = 40;

/** Everything that happened, newest first. Nothing is ever erased: corrections and take-backs stay visible. */
export function LogPage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const log = useQuery(logQuery(poolId, units));
  const head = useQuery(poolQuery(poolId));
  const zone = head.data?.settings.time_zone ?? "UTC";
  const [shown, setShown] = useState(PAGE);
  const drawn = [
    useQuery(historiesQuery(poolId)),
    useQuery(seasonQuery(poolId)),
    useQuery(photosQuery(poolId)),
  ];
  if (coming(log, head, ...drawn))
    return (
      <>
        <SignShape />
        <Loading what="the log" />
      </>
    );
  return (
    <>
      <PoolHeader poolId={poolId} />
      {head.data && <HistoryCard poolId={poolId} zone={zone} />}
      {head.data && (
        <LogEntryCard poolId={poolId} hasCell={head.data.equipment.traits.chlorination === "salt_cell"} />
      )}
      <AllPhotos poolId={poolId} zone={zone} />
      {log.isError && <Failed error={log.error} again={() => void log.refetch()} />}
      {log.data && (
        <Card as="section">
          <Flex justify="space-between" align="baseline" gap="3" wrap="wrap" mb="3">
            <Heading as="h2" fontSize="lead">
              Log
            </Heading>
            <PlainLink to={`/pools/${poolId}/report`}>A day's report for the owner</PlainLink>
          </Flex>
          <Box as="ol" listStyleType="none" p="0" m="0">
            {log.data.slice(0, shown).map((line, index) => {
              const day = dayKey(line.at, zone);
              const before = log.data[index - 1];
              const first = before === undefined || dayKey(before.at, zone) !== day;
              return (
                <Line
                  key={line.id}
                  line={line}
                  zone={zone}
                  poolId={poolId}
                  day={first ? dayName(line.at, zone) : null}
                />
              );
            })}
          </Box>
          {log.data.length > shown && (
            <SideButton onClick={() => setShown(shown + PAGE)}>
              Show older entries ({log.data.length - shown} more)
            </SideButton>
          )}
          <LogFiles poolId={poolId} units={units} />
        </Card>
      )}
    </>
  );
}

function Line({
  line,
  zone,
  poolId,
  day,
}: {
  line: LogLine;
  zone: string;
  poolId: string;
  day: string | null;
}) {
  const gone = line.replaced_by !== null;
  const [editing, setEditing] = useState(false);
  const late = new Date(line.recorded_at).getTime() - new Date(line.at).getTime() > 30 * 60_000;
  return (
    <Box
      as="li"
      borderTop={day === null ? "none" : "1px solid"}
      borderColor="hairline"
      pt={day === null ? "0" : "3"}
    >
      {day !== null && (
        <Text fontWeight="700" mb="1">
          {day}
        </Text>
      )}
      <Grid
        templateColumns="4.5rem minmax(0,1fr) auto"
        templateAreas={{ base: '"time what what" "time who acts"', md: '"time what acts" "time who acts"' }}
        columnGap={{ base: "2", md: "4" }}
        pb="3"
        alignItems="baseline"
      >
        <Text gridArea="time" color="soft" whiteSpace="nowrap">
          {clock(line.at, zone)}
        </Text>
        <Text gridArea="what" textDecoration={gone ? "line-through" : "none"} color={gone ? "soft" : "ink"}>
          <Text as="span" fontWeight="600">
            {line.title}
          </Text>{" "}
          {line.detail}
        </Text>
        <Text gridArea="who" fontSize="note" color="soft">
          {[
            line.by && `by ${line.by}`,
            line.workspace,
            line.supersedes !== null && line.kind !== "void" ? "corrected entry" : "",
            gone ? (line.taken_back ? "taken back" : "replaced by a correction") : "",
            late ? `entered ${dayName(line.recorded_at, zone)} ${clock(line.recorded_at, zone)}` : "",
          ]
            .filter(Boolean)
            .join(" · ")}
        </Text>
        {line.can_change && !editing && (
          <Actions line={line} poolId={poolId} onEdit={() => setEditing(true)} />
        )}
      </Grid>
      {editing && <AmountForm line={line} poolId={poolId} close={() => setEditing(false)} />}
    </Box>
  );
}

// In the line of who entered it on a phone, where a row of buttons under each entry would double the log.
const ACT = {
  my: { base: "-10px", md: "0" },
  px: { base: "2", md: "4" },
  bg: { base: "transparent", md: "card" },
  borderColor: { base: "transparent", md: "control" },
  fontSize: { base: "note", md: "body" },
  textDecoration: { base: "underline", md: "none" },
} as const;

interface ActionsProps {
  line: LogLine;
  poolId: string;
  onEdit: () => void;
}

function Actions({ line, poolId, onEdit }: ActionsProps) {
  const queries = useQueryClient();
  const navigate = useNavigate();

  async function takeBack() {
    try {
      await take(
        client.POST("/api/v1/entries/{entry_id}/void", {
          params: { path: { entry_id: line.id } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), reason: "" },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify(`Taken back: ${line.title.toLowerCase()}. It stays in the log, struck out.`);
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return (
    <Flex
      gridArea="acts"
      gap={{ base: "0", md: "2" }}
      alignSelf={{ md: "start" }}
      mr={{ base: "-2", md: "0" }}
    >
      {line.kind === "test" && (
        <SideButton
          {...ACT}
          onClick={() => navigate(`/pools/${poolId}/test?correct=${line.id}`)}
          aria-label={`Correct: ${line.title}`}
        >
          Correct
        </SideButton>
      )}
      {line.kind === "addition" && (
        <SideButton {...ACT} onClick={onEdit} aria-label={`Correct: ${line.title}`}>
          Correct
        </SideButton>
      )}
      <SideButton {...ACT} onClick={() => void takeBack()} aria-label={`Take back: ${line.title}`}>
        Take back
      </SideButton>
    </Flex>
  );
}

interface Correction {
  amount: string;
  at: string;
}
const { Field } = fieldsOf<Correction>();

function AmountForm({ line, poolId, close }: { line: LogLine; poolId: string; close: () => void }) {
  const queries = useQueryClient();
  const units = useStore(unitsStore);
  const kit = useKit<Correction>({
    start: { amount: line.detail, at: "" },
    send: async ({ amount, at }) => {
      await take(
        client.POST("/api/v1/entries/{entry_id}/correct-addition", {
          params: { path: { entry_id: line.id }, query: { metric: units === "metric" } },
          body: {
            id: crypto.randomUUID(),
            at: at === "" ? line.at : new Date(at).toISOString(),
            person_id: personId(),
            amount,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify("Corrected. The old value stays in the log.");
      close();
    },
  });
  return (
    <Box w="100%" maxW="24rem" pb="3">
      <KitForm kit={kit}>
        <Field name="amount" label="What really went in" autoFocus />
        <Field name="at" label="When, if the time is wrong too" type="datetime-local" />
        <FormProblem shown={["amount", "at"]} />
        <Flex gap="3" mt="3">
          <MainButton type="submit">Correct</MainButton>
          <SideButton minH="52px" onClick={close}>
            Leave it
          </SideButton>
        </Flex>
      </KitForm>
    </Box>
  );
}
