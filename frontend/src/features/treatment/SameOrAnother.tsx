import { Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { peopleQuery } from "../../api/queries";
import type { TreatmentStep } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Caution } from "../../components/Card";
import { clock } from "../../lib/times";

interface SameOrAnotherProps {
  line: TreatmentStep;
  amount: string;
  zone: string;
  onSame: () => void;
  onAnother: () => void;
}

/** Somebody else ticked this step meanwhile: was it the same pour, or another one? */
export function SameOrAnother({ line, amount, zone, onSame, onAnother }: SameOrAnotherProps) {
  const people = useQuery(peopleQuery());
  const ticked = line.ticked;
  if (!ticked) return null;
  const who = people.data?.find(({ id }) => id === ticked.person_id)?.name ?? "someone";
  const what = ticked.amount_text ?? line.step.title;
  return (
    <Caution role="alert" mb="5" maxW="52rem">
      <Text fontWeight="650" mb="1">
        {what} of {line.step.title} was ticked at {clock(ticked.at, zone)} by {who}.
      </Text>
      <Text mb="3">Is yours the same pour, or another{amount === "" ? "" : ` (${amount})`}?</Text>
      <Flex gap="3" wrap="wrap">
        <SideButton onClick={onSame}>The same pour</SideButton>
        <SideButton onClick={onAnother}>Another pour</SideButton>
      </Flex>
    </Caution>
  );
}
