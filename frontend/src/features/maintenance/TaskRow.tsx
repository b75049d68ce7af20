import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { useMaintenance } from "../../api/care";
import type { DueItem } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { lateText, whereOf } from "../../components/DueCard";
import { PlainLink } from "../../components/TextLink";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { daysAfter } from "../../lib/days";

interface CareRowProps {
  item: DueItem;
  poolId: string;
  care: ReturnType<typeof useMaintenance>;
}

/** One item: when, why; opened, what early or late costs and what to do with it. */
export function TaskRow({ item, poolId, care }: CareRowProps) {
  const [open, setOpen] = useState(false);
  const where = whereOf(item, poolId);
  const late = item.standing === "overdue";
  return (
    <Box as="li" borderTop="1px solid" borderColor="hairline" _first={{ borderTop: "none" }} py="2">
      <Flex gap="3" align="center">
        <Box flex="1" minW="0">
          <Text fontWeight="600">{item.title}</Text>
          <Text fontSize="note" color={late ? "ink" : "soft"} fontWeight={late ? "600" : "400"}>
            {lateText(item)}
          </Text>
        </Box>
        {where !== null && (
          <SideButton asChild flexShrink={0}>
            <PlainLink to={where} color="ink" textDecoration="none" aria-label={`Do it: ${item.title}`}>
              Do it
            </PlainLink>
          </SideButton>
        )}
        <SideButton
          px="3"
          flexShrink={0}
          aria-expanded={open}
          aria-label={`More about: ${item.title}`}
          onClick={() => setOpen(!open)}
        >
          {open ? "−" : "…"}
        </SideButton>
      </Flex>
      {open && <More item={item} care={care} />}
    </Box>
  );
}

function More({ item, care }: Pick<CareRowProps, "item" | "care">) {
  const [asks, setAsks] = useState<"reason" | "days" | null>(null);
  const today = new Date().toISOString().slice(0, 10);
  const calendar = item.days !== null;

  const ofList = item.station === "season";
  return (
    <Box mt="2" pb="2">
      <Text fontSize="note">{item.why}</Text>
      {item.early && (
        <Grid templateColumns="5rem 1fr" fontSize="note" color="soft" mt="1">
          <Text>Too early</Text>
          <Text>{item.early}</Text>
          <Text>Too late</Text>
          <Text>{item.late}</Text>
        </Grid>
      )}
      {!item.early && item.late && (
        <Text fontSize="note" color="soft">
          Left alone: {item.late}
        </Text>
      )}
      {asks === null ? (
        <Flex gap="2" mt="3" wrap="wrap">
          {((calendar && item.station === null) || ofList) && (
            <SideButton disabled={care.goes(item.task)} onClick={() => void care.done(item)}>
              Done already
            </SideButton>
          )}
          {[1, 3, 7].map((days) => (
            <SideButton
              key={days}
              disabled={care.goes(item.task)}
              onClick={() => void care.putOff(item, daysAfter(today, days))}
            >
              {days === 1 ? "Tomorrow" : days === 7 ? "In a week" : `In ${days} days`}
            </SideButton>
          ))}
          {(calendar || ofList) && <SideButton onClick={() => setAsks("reason")}>Not this time</SideButton>}
          {calendar && !ofList && <SideButton onClick={() => setAsks("days")}>Own interval</SideButton>}
          {calendar && !ofList && (
            <SideButton
              disabled={care.goes(item.task)}
              onClick={() => void care.interval(item.task, null, true)}
            >
              Off the list
            </SideButton>
          )}
        </Flex>
      ) : (
        <AskedOnce item={item} asks={asks} care={care} close={() => setAsks(null)} />
      )}
    </Box>
  );
}

interface AskedOnceProps extends Pick<CareRowProps, "item" | "care"> {
  asks: "reason" | "days";
  close: () => void;
}
const { Field } = fieldsOf<{ text: string }>();

/** Why it is left out, or how often it comes round. */
function AskedOnce({ item, asks, care, close }: AskedOnceProps) {
  const kit = useKit<{ text: string }>({
    start: { text: "" },
    send: async ({ text }) => {
      const kept = asks === "reason" ? await care.leaveOut(item, text) : await care.interval(item.task, text);
      if (kept) close();
    },
  });
  return (
    <KitForm kit={kit}>
      <Flex gap="2" align="end" mt="3" wrap="wrap">
        <Box flex="1" maxW="22rem">
          <Field
            name="text"
            label={asks === "reason" ? "Why not this time" : "Every so many days"}
            inputMode={asks === "days" ? "decimal" : "text"}
            autoFocus
          />
        </Box>
        <MainButton
          type="submit"
          minH="44px"
          disabled={care.goes(item.task) || kit.form.watch("text").trim() === ""}
        >
          Keep
        </MainButton>
        <SideButton onClick={close}>Back</SideButton>
      </Flex>
    </KitForm>
  );
}
