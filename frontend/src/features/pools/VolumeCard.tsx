import { Text } from "@chakra-ui/react";
import type { BasinView } from "../../api/types";
import { Card } from "../../components/Card";
import { PlanDrawing } from "../../components/PlanDrawing";
import { lengthText, type Units, volumeText } from "../../lib/units";
import { Fixtures } from "./Fixtures";

/** The volume as far as it is known, and the drawing that grows with the dimensions. */
export function VolumeCard({ found, units }: { found: BasinView | null; units: Units }) {
  return (
    <Card as="aside" aria-label="Volume and plan" position={{ lg: "sticky" }} top="4">
      <Text fontSize="note" color="soft">
        Volume in use
      </Text>
      <Text fontSize="2rem" fontWeight="750" lineHeight="1.2" data-testid="volume" aria-live="polite">
        {found ? volumeText(found.volume_l, units) : "–"}
      </Text>
      <Text fontSize="note" color="soft" mb="3">
        {found === null
          ? "appears when the size is complete"
          : found.mean_depth_m !== null && `mean depth ${lengthText(found.mean_depth_m, units)}`}
      </Text>
      {found?.drawing && (
        <>
          <PlanDrawing plan={found.drawing} units={units} show="sample" />
          <Fixtures />
        </>
      )}
    </Card>
  );
}
