import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import type { Step } from "../api/types";
import { Icon, isIcon } from "./icons";
import { PlainLink } from "./TextLink";

interface CautionLineProps {
  step: Pick<Step, "cautions" | "signs">;
  hazardous: boolean;
  /** The first step with this product tells them in full; later ones open to it. */
  full: boolean;
}

/** The cautions of a step: a compact line of pictograms with their words, and the full words behind or below. */
export function CautionLine({ step, hazardous, full }: CautionLineProps) {
  if (step.cautions.length === 0) return null;
  const words = (
    <Box fontSize="note">
      {step.cautions.map((caution) => (
        <Text key={caution} color="accent" fontWeight="600" _print={{ display: "inline" }}>
          {`${caution} `}
        </Text>
      ))}
      {hazardous && (
        <PlainLink to="/emergency" data-noprint display="inline-flex" minH="24px" alignItems="center">
          If it goes wrong
        </PlainLink>
      )}
    </Box>
  );
  if (step.signs.length === 0) return words;
  if (full) {
    return (
      <>
        <Signs signs={step.signs} />
        {words}
      </>
    );
  }
  return (
    <chakra.details>
      <chakra.summary
        cursor="pointer"
        listStyleType="none"
        minH="32px"
        display="flex"
        alignItems="center"
        aria-label={`Cautions: ${step.signs.map(({ text }) => text).join(", ")}`}
      >
        <Signs signs={step.signs} />
        <Text as="span" aria-hidden="true" color="accent" ml="2">
          ▾
        </Text>
      </chakra.summary>
      {words}
    </chakra.details>
  );
}

function Signs({ signs }: { signs: Step["signs"] }) {
  return (
    <Flex columnGap="4" rowGap="1" wrap="wrap" color="accent" fontWeight="650" fontSize="note" my="1">
      {signs.map(({ sign, text }) => (
        <Flex as="span" key={sign} gap="1.5" align="center">
          {isIcon(sign) && <Icon name={sign} size={20} />}
          {text}
        </Flex>
      ))}
    </Flex>
  );
}
