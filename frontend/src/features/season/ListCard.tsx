import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import type { SavedList, SeasonList } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PaperLink } from "../../components/PaperLink";
import { PickMany } from "../../components/Pick";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { dayText } from "../../lib/days";
import { dayName } from "../../lib/times";
import { ItemLine } from "./ItemLine";
import { LIST, type useSeasonLists } from "./useSeasonLists";

interface ListCardProps extends Pick<ReturnType<typeof useSeasonLists>, "goes" | "keep" | "tick" | "undo"> {
  list: SeasonList;
  poolId: string;
  zone: string;
}

export const NAMES: Record<SavedList["which"], string> = { opening: "Opening", closing: "Closing" };

/** A kept list: ticked off, changed, printed, or dropped. */
export function ListCard({ list, poolId, zone, goes, keep, tick, undo }: ListCardProps) {
  const { kept } = list;
  const [changing, setChanging] = useState(false);
  const [open, setOpen] = useState(list.done < list.items.length);
  return (
    <Card as="section" mt="5" aria-label={`${NAMES[kept.which]} on ${dayText(kept.day)}`}>
      <Flex justify="space-between" align="center" gap="3" wrap="wrap">
        <Heading as="h2" fontSize="lead">
          {NAMES[kept.which]}, {dayText(kept.day)}:{" "}
          <Text as="span" fontWeight="400">
            {list.done} of {list.items.length} done
          </Text>
        </Heading>
        <Flex gap="2" data-noprint wrap="wrap">
          <SideButton aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Fold" : "Show"}
          </SideButton>
          <SideButton aria-pressed={changing} onClick={() => setChanging(!changing)}>
            {changing ? "Finish changing" : "Change the list"}
          </SideButton>
          <SideButton onClick={printList}>Print</SideButton>
          <PaperLink poolId={poolId} kind="record" of={{ list_id: list.kept.list_id }}>
            Record as PDF
          </PaperLink>
        </Flex>
      </Flex>
      {changing && <Change kept={kept} busy={goes(LIST)} keep={keep} />}
      {open && (
        <Notes list={list} zone={zone}>
          <AtHand list={list} goes={goes} tick={tick} undo={undo} />
        </Notes>
      )}
      {open && (
        <Box as="ol" listStyleType="none" p="0" m="0" mt="3">
          {list.items.map((line, index) => (
            <ItemLine
              key={line.item.key}
              line={line}
              poolId={poolId}
              zone={zone}
              busy={goes(LIST) || goes(line.item.key) || goes(line.ticked?.entry_id ?? "")}
              day={list.items[index - 1]?.item.day === line.item.day ? null : line.item.day}
              onTick={(outcome) => void tick(kept.list_id, line.item, outcome)}
              onUndo={(entryId) => void undo(entryId)}
              onLeaveOut={
                changing ? () => void keep(without(kept, line.item), "Taken off the list.") : undefined
              }
            />
          ))}
        </Box>
      )}
    </Card>
  );
}

/** The list alone, without the year above it. */
function printList() {
  document.body.dataset.print = "list";
  window.print();
  delete document.body.dataset.print;
}

function without(kept: SavedList, item: { key: string; own: boolean }): SavedList {
  return item.own
    ? { ...kept, own: kept.own.filter(({ key }) => key !== item.key) }
    : { ...kept, left_out: [...kept.left_out, item.key] };
}

/** What the list needs, ticked off as it is bought or found. */
function AtHand({ list, goes, tick, undo }: Pick<ListCardProps, "list" | "goes" | "tick" | "undo">) {
  const there = list.materials.filter((one) => one.at_hand);
  if (list.materials.length === 0) return null;
  const toggle = (name: string) => {
    const one = list.materials.find((material) => material.name === name);
    if (one === undefined || goes(one.key) || goes(one.entry_id ?? "")) return;
    if (one.entry_id) void undo(one.entry_id);
    else void tick(list.kept.list_id, { key: one.key, title: name }, "done");
  };
  return (
    <Box mt="3">
      <PickMany
        label={`To have at hand: ${there.length} of ${list.materials.length} there. Tap what is.`}
        options={list.materials.map(({ name }) => name)}
        values={there.map(({ name }) => name)}
        onToggle={toggle}
      />
    </Box>
  );
}

/** What the day itself means, what the winter will do, by which test the amounts are. */
export function Notes({ list, zone, children }: { list: SeasonList; zone: string; children: ReactNode }) {
  return (
    <Box mt="3">
      {list.notes.map((note) => (
        <Text key={note}>{note}</Text>
      ))}
      {list.crossing_text !== null && <Text>{list.crossing_text}</Text>}
      {list.winter.map((line) => (
        <Text key={line.code} fontSize="note">
          {line.text}
        </Text>
      ))}
      {children}
      <Text fontSize="note" color="soft" mt="2">
        {list.tested_at
          ? `Amounts are by the test of ${dayName(list.tested_at, zone)}; a new test reckons them again.`
          : "No test yet: amounts come with the first one."}
      </Text>
    </Box>
  );
}

interface ChangeProps extends Pick<ListCardProps, "keep"> {
  busy: boolean;
  kept: SavedList;
}

interface Move {
  day: string;
}
interface Own {
  title: string;
  on: string;
}
const moved = fieldsOf<Move>();
const own = fieldsOf<Own>();
const FARTHEST_DAYS = 60;

/** Another day, an item of one's own, what was taken off, or the whole list away. */
function Change({ kept, busy, keep }: ChangeProps) {
  const move = useKit<Move>({
    start: { day: kept.day },
    send: ({ day }) => keep({ ...kept, day }, "Moved; every item moves along."),
  });
  const add = useKit<Own>({
    start: { title: "", on: kept.day },
    send: async ({ title, on }, form) => {
      const item = {
        key: `own-${crypto.randomUUID().slice(0, 8)}`,
        day: offsetOf(on, kept.day),
        title: title.trim(),
        text: "",
      };
      if (await keep({ ...kept, own: [...kept.own, item] }, `${item.title}: on the list.`))
        form.resetField("title");
    },
  });
  const day = move.form.watch("day");
  const { title, on } = add.form.watch();
  const offset = offsetOf(on, kept.day);
  return (
    <Box mt="4" p="4" border="1.5px dashed" borderColor="control" borderRadius="10px" data-noprint>
      <KitForm kit={move}>
        <Flex gap="3" wrap="wrap" align="end">
          <Box w="11rem">
            <moved.Field name="day" label="The day itself" type="date" />
          </Box>
          <SideButton type="submit" disabled={busy || day === "" || day === kept.day}>
            Move the list
          </SideButton>
        </Flex>
      </KitForm>
      <KitForm kit={add}>
        <Flex gap="3" wrap="wrap" align="end" mt="3">
          <Box flex="1" minW="12rem">
            <own.Field name="title" label="An item of your own" maxLength={120} />
          </Box>
          <Box w="11rem">
            <own.Field name="on" label="On" type="date" />
          </Box>
          <SideButton
            type="submit"
            disabled={
              busy || title.trim() === "" || !Number.isFinite(offset) || Math.abs(offset) > FARTHEST_DAYS
            }
          >
            Add it
          </SideButton>
        </Flex>
      </KitForm>
      <Flex gap="3" wrap="wrap" mt="3">
        {kept.left_out.length > 0 && (
          <SideButton
            disabled={busy}
            onClick={() => void keep({ ...kept, left_out: [] }, "All items are back.")}
          >
            Bring back what was taken off ({kept.left_out.length})
          </SideButton>
        )}
        <SideButton
          disabled={busy}
          onClick={() => void keep({ ...kept, dropped: true }, "The list is dropped.")}
        >
          Drop this list
        </SideButton>
      </Flex>
    </Box>
  );
}

/** Days from the list's own day; not a number while none is chosen. */
function offsetOf(on: string, day: string): number {
  return Math.round((Date.parse(on) - Date.parse(day)) / 86_400_000);
}
