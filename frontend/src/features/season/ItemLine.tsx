import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import type { ListItem } from "../../api/types";
import { SideButton } from "../../components/Button";
import { PlainLink } from "../../components/TextLink";
import { addressOf } from "../../lib/addresses";
import { dayText } from "../../lib/days";
import { clock, dayName, hoursText } from "../../lib/times";

const LINKS: Record<string, string> = {
  slip: "To the test",
  sheet: "To the plan",
  shock: "To the shock’s plan",
  rescue: "To the rescue board",
  care: "To the care list",
  shelf: "To the shelf",
  label: "To its dose by the label",
};
/** Where the item is done; what is dosed by its label with the product that the list reckoned with. */
function whereTo({ item, doses }: ListItem, poolId: string): string {
  const product = item.station === "label" ? doses?.lines[0]?.product_id : undefined;
  const use = product === undefined ? "" : `&use=${encodeURIComponent(product)}`;
  return `${addressOf(poolId, item.station ?? "board")}${use}`;
}

interface ItemProps {
  line: ListItem;
  poolId: string;
  zone: string;
  /** The day, where it is another than the line's before. */
  day: string | null;
  busy: boolean;
  /** None in a preview: it cannot be ticked yet. */
  onTick?: ((outcome: "done" | "skipped") => void) | undefined;
  onUndo?: ((entryId: string) => void) | undefined;
  /** Given while the list is being changed. */
  onLeaveOut?: (() => void) | undefined;
}

/** One item on its day: what, its cautions, its amounts, and its tick. */
export function ItemLine({ line, poolId, zone, day, busy, onTick, onUndo, onLeaveOut }: ItemProps) {
  const { item, ticked } = line;
  const where = whereTo(line, poolId);
  return (
    <Grid
      as="li"
      templateColumns={{ base: "4.5rem minmax(0,1fr)", md: "6.5rem minmax(0,1fr) auto" }}
      columnGap="3"
      py="2"
      borderTop={day === null ? "none" : "1px solid"}
      borderColor="hairline"
      data-item={item.key}
    >
      <Text fontWeight="700">{day === null ? "" : dayText(day)}</Text>
      <Box>
        <Text fontWeight="600" textDecoration={ticked?.outcome === "skipped" ? "line-through" : "none"}>
          {ticked?.outcome === "done" && <span aria-hidden="true">✓ </span>}
          {item.title}
        </Text>
        {ticked ? (
          <Ticked line={line} zone={zone} />
        ) : (
          <>
            {item.text && <Text>{item.text}</Text>}
            <Doses line={line} />
            {item.minutes > 0 && (
              <Text fontSize="note" color="soft">
                Then {hoursText(item.minutes)} with the pump on.
              </Text>
            )}
            {item.cautions.map((caution) => (
              <Text key={caution} fontSize="note" color="accent" fontWeight="600">
                {caution}
              </Text>
            ))}
            {item.station && (
              <PlainLink to={where} fontSize="note" data-noprint>
                {LINKS[item.station]}
              </PlainLink>
            )}
          </>
        )}
      </Box>
      <Flex
        gap="2"
        align="start"
        gridColumn={{ base: "2", md: "3" }}
        mt={{ base: "2", md: "0" }}
        wrap="wrap"
        data-noprint
      >
        {onLeaveOut ? (
          <SideButton disabled={busy} aria-label={`Take off the list: ${item.title}`} onClick={onLeaveOut}>
            Take off
          </SideButton>
        ) : ticked && onUndo ? (
          <SideButton
            disabled={busy}
            aria-label={`Take the tick back: ${item.title}`}
            onClick={() => onUndo(ticked.entry_id)}
          >
            Take back
          </SideButton>
        ) : (
          onTick &&
          !ticked && (
            <>
              <SideButton disabled={busy} aria-label={`Done: ${item.title}`} onClick={() => onTick("done")}>
                Done
              </SideButton>
              <SideButton
                disabled={busy}
                aria-label={`Not here: ${item.title}`}
                onClick={() => onTick("skipped")}
              >
                Not here
              </SideButton>
            </>
          )
        )}
      </Flex>
    </Grid>
  );
}

function Ticked({ line, zone }: { line: ListItem; zone: string }) {
  const { ticked, circulate_until } = line;
  if (!ticked) return null;
  const when = `${dayName(ticked.at, zone)}, ${clock(ticked.at, zone)}`;
  return (
    <Text fontSize="note" color="soft">
      {ticked.outcome === "done" ? `Done ${when}` : `Left out ${when}`}
      {ticked.note ? `: ${ticked.note}` : ""}
      {circulate_until && (
        <Text as="span" color="ink" fontWeight="650">
          . Pump on until {clock(circulate_until, zone)}; nothing else in before
        </Text>
      )}
      .
    </Text>
  );
}

function Doses({ line }: { line: ListItem }) {
  if (!line.doses) return null;
  return (
    <>
      {line.doses.lines.map((dose) => (
        <Text key={dose.product_id} fontWeight="600">
          {dose.amount} of {dose.label}
          {dose.parts > 1 && `, in ${dose.parts} parts`}
          {dose.short !== null && (
            <Text as="span" fontWeight="400" color="soft" fontSize="note">
              {dose.short === "" ? ", on the shelf" : `, ${dose.short} short on the shelf`}
            </Text>
          )}
        </Text>
      ))}
      {line.doses.left.map((reason) => (
        <Text key={reason} fontSize="note">
          {reason}
        </Text>
      ))}
      {line.doses.lines.length === 0 && line.doses.left.length === 0 && (
        <Text fontSize="note">By the last test nothing is needed.</Text>
      )}
    </>
  );
}
