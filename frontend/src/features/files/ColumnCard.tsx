import { Box, Grid, Text } from "@chakra-ui/react";
import type { ImportChoices, ImportColumn, TableKind } from "../../api/files";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";

const ORDERS = [
  { value: "year_first", label: "Year first, 2026-06-03" },
  { value: "month_first", label: "Month first, 6/3/26" },
  { value: "day_first", label: "Day first, 3.6.26" },
];
const SIGNS = [
  { value: "point", label: "7.4" },
  { value: "comma", label: "7,4" },
];

interface ColumnCardProps {
  title: string;
  cells: readonly string[];
  column: ImportColumn;
  kind: TableKind;
  choices: ImportChoices;
  onColumn: (column: ImportColumn) => void;
}

/** One column: what its header and first cells are, and what it is taken for. */
export function ColumnCard({ title, cells, column, kind, choices, onColumn }: ColumnCardProps) {
  const set = (part: Partial<ImportColumn>) => onColumn({ ...column, ...part });
  const named = (rows: ImportChoices["units"]) => rows.map(({ key, name }) => ({ value: key, label: name }));
  const pickRole = (role: string) =>
    onColumn({
      ...column,
      role: role as ImportColumn["role"],
      measure: role === "measure" ? (column.measure ?? "free_chlorine") : null,
      chemical: role === "added" ? column.chemical || (choices.chemicals[0]?.key ?? "") : "",
    });
  const dated = column.role === "date";
  const counted = column.role === "measure" || column.role === "added";
  return (
    <Box
      as="article"
      aria-label={title}
      border="1px solid"
      borderColor="hairline"
      borderRadius="10px"
      p="3"
      opacity={column.role === "skip" ? 0.75 : 1}
    >
      <Text fontWeight="700" truncate>
        {title}
      </Text>
      <Text fontSize="note" color="soft" fontFamily="mono" mb="2" truncate>
        {cells
          .filter((cell) => cell !== "")
          .slice(0, 4)
          .join(" · ") || "empty"}
      </Text>
      <Grid gap="2">
        <SelectField
          label="Holds"
          value={column.role}
          options={named(choices.roles[kind] ?? [])}
          onPick={pickRole}
        />
        {column.role === "measure" && (
          <SelectField
            label="Which reading"
            value={column.measure ?? ""}
            options={named(choices.measures)}
            onPick={(measure) => set({ measure: measure as ImportColumn["measure"] })}
          />
        )}
        {column.role === "measure" && column.measure !== "ph" && (
          <SelectField
            label="In"
            value={column.unit}
            options={[{ value: "", label: "The usual unit" }, ...named(choices.units)]}
            onPick={(unit) => set({ unit })}
          />
        )}
        {column.role === "added" && (
          <>
            <SelectField
              label="Which product"
              value={column.chemical}
              options={named(choices.chemicals)}
              onPick={(chemical) => set({ chemical, strength_percent: null })}
            />
            <TextField label="Unit, such as gal or lb" value={column.unit} onText={(unit) => set({ unit })} />
          </>
        )}
        {counted && (
          <SelectField
            label="Decimals like"
            value={column.decimal_comma ? "comma" : "point"}
            options={SIGNS}
            onPick={(sign) => set({ decimal_comma: sign === "comma" })}
          />
        )}
        {dated && (
          <SelectField
            label="Written"
            value={column.dates}
            options={ORDERS}
            onPick={(dates) => set({ dates: dates as ImportColumn["dates"] })}
          />
        )}
      </Grid>
    </Box>
  );
}
