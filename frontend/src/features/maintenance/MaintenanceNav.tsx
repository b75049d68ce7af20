import { Flex } from "@chakra-ui/react";
import { TextLink } from "../../components/TextLink";

/** The three parts of a pool's care. */
export function MaintenanceNav({ poolId }: { poolId: string }) {
  const base = `/pools/${poolId}/care`;
  return (
    <Flex as="nav" aria-label="Care" gap="6" mb="4" data-noprint>
      <TextLink to={base} end>
        List
      </TextLink>
      <TextLink to={`${base}/equipment`}>Equipment</TextLink>
      <TextLink to={`${base}/calendar`}>Calendar</TextLink>
    </Flex>
  );
}
