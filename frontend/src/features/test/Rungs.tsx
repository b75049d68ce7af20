import { chakra } from "@chakra-ui/react";

const Step = chakra("button", {
  base: {
    flexShrink: 0,
    w: "44px",
    minH: "48px",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    bg: "card",
    color: "ink",
    fontSize: "title",
    fontWeight: "600",
    lineHeight: "1",
    cursor: "pointer",
    touchAction: "manipulation",
    _disabled: { opacity: 0.3, cursor: "default" },
  },
});

interface RungProps {
  label: string;
  /** Readings around the last one, lowest first, as they would be typed. */
  ladder: readonly string[];
  text: string;
  last: string;
  by: 1 | -1;
  onText: (text: string) => void;
}

/** One step up or down from what stands in the field; from an empty one, it begins at the last reading. */
export function Rung({ label, ladder, text, last, by, onText }: RungProps) {
  const at = ladder.indexOf(text.trim() === "" ? last : text.trim());
  const next = text.trim() === "" ? ladder[at] : ladder[at + by];
  return (
    <Step
      type="button"
      tabIndex={-1}
      aria-label={`${label}: ${by === 1 ? "more" : "less"}`}
      disabled={at < 0 || next === undefined}
      onClick={() => next !== undefined && onText(next)}
    >
      {by === 1 ? "+" : "−"}
    </Step>
  );
}
