import { Box, chakra, Text } from "@chakra-ui/react";
import { memo } from "react";
import type { Gauge, Marker } from "../api/types";
import { LEFT, percent, RIGHT } from "./gaugeScale";

const Rope = chakra("div", {
  base: {
    position: "absolute",
    top: "0",
    bottom: "0",
    w: "8px",
    ml: "-4px",
    backgroundImage: "radial-gradient(ellipse 3.5px 4.5px at center, {colors.rope} 95%, transparent)",
    backgroundSize: "8px 11px",
    backgroundRepeat: "repeat-y",
  },
});

/** The lane itself: ropes, trail, the solid float of the reading, the hollow one where the plan leads. */
export function Track({ lane, planned }: { lane: Gauge; planned: Marker | null }) {
  return (
    <>
      <Ground lane={lane} />
      {lane.reading !== null && planned !== null && <Leader from={lane.reading} to={planned} />}
      {lane.reading !== null && (
        <SolidFloat
          reading={lane.reading}
          off={lane.verdict.code === "low" || lane.verdict.code === "high"}
          old={lane.old}
        />
      )}
      {planned !== null && (
        <Box
          position="absolute"
          top="50%"
          style={{ left: percent(planned.at.position) }}
          w="20px"
          h="20px"
          m="-10px"
          borderRadius="full"
          bg="card"
          border="3px solid"
          borderColor="ink"
        />
      )}
    </>
  );
}

/** What of a lane stands still while a float is moved. */
const Ground = memo(function Ground({ lane }: { lane: Gauge }) {
  return (
    <>
      <Box
        position="absolute"
        top="0"
        bottom="0"
        left={percent(0)}
        right={`calc(100% - ${percent(1)})`}
        bg="band"
      />
      <Box position="absolute" top="50%" left="0" right="0" h="2px" mt="-1px" bg="hairline" />
      {lane.low !== null && <Rope left={percent(0)} />}
      <Rope left={percent(1)} />
      {lane.trail.map((earlier, index) => (
        <Box
          key={index}
          position="absolute"
          top="50%"
          left={percent(earlier.at.position)}
          w="7px"
          h="7px"
          m="-3.5px"
          borderRadius="full"
          bg="soft"
          opacity={0.35 + 0.15 * index}
        />
      ))}
    </>
  );
});

function Leader({ from, to }: { from: Marker; to: Marker }) {
  const left = Math.min(from.at.position, to.at.position);
  const right = Math.max(from.at.position, to.at.position);
  return (
    <Box
      position="absolute"
      top="50%"
      mt="-1.5px"
      style={{ left: percent(left), right: `calc(100% - ${percent(right)})` }}
      borderTop="3px dotted"
      borderColor="ink"
    />
  );
}

interface SolidFloatProps {
  reading: Marker;
  off: boolean;
  old: boolean;
}

/** As wide as the method's doubt, never narrower than it is high; hatched when it is old. An arrow off the edge. */
const SolidFloat = memo(function SolidFloat({ reading, off, old }: SolidFloatProps) {
  const color = off ? "accent" : "ink";
  if (reading.at.off_edge !== 0) {
    return (
      <Text
        position="absolute"
        top="50%"
        left={percent(reading.at.position)}
        transform="translate(-50%, -50%)"
        color={color}
        fontSize="title"
        fontWeight="700"
        lineHeight="1"
      >
        {reading.at.off_edge < 0 ? "◀" : "▶"}
      </Text>
    );
  }
  const width = ((reading.high_at.position - reading.low_at.position) / (RIGHT - LEFT)) * 100;
  const middle = (reading.high_at.position + reading.low_at.position) / 2;
  return (
    <Box
      position="absolute"
      top="50%"
      left={percent(middle)}
      w={`max(20px, ${width}%)`}
      h="18px"
      transform="translate(-50%, -50%)"
      borderRadius="9px"
      bg={old ? "card" : color}
      border={old ? "2px solid" : undefined}
      borderColor={color}
      backgroundImage={
        old ? `repeating-linear-gradient(135deg, {colors.${color}} 0 3px, transparent 3px 7px)` : undefined
      }
    />
  );
});
