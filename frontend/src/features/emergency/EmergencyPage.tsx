import { Box, Heading, Link, Text } from "@chakra-ui/react";
import { useState } from "react";
import { Card, Caution } from "../../components/Card";
import { TextField } from "../../components/TextField";
import { keep, readSaved } from "../../lib/store";
import page from "./emergency.json";

const NUMBER_KEY = "kumpan.emergency-number";

/** What to do when it has gone wrong. In the first load and kept on the device: it needs no server. */
export function EmergencyPage() {
  const [number, setNumber] = useState(readSaved(NUMBER_KEY) ?? "");
  const dial = number.replace(/[^\d+]/g, "");
  return (
    <Box maxW="56rem">
      <Heading as="h1" fontSize="title" mb="2">
        Emergency
      </Heading>
      <Text mb="4">{page.preamble}</Text>
      <Caution mb="5" display="flex" gap="5" flexWrap="wrap" alignItems="end">
        {dial !== "" && (
          <Link
            href={`tel:${dial}`}
            minH="52px"
            px="6"
            bg="accent"
            color="card"
            borderRadius="10px"
            fontSize="title"
            fontWeight="700"
          >
            Call {number}
          </Link>
        )}
        <Box maxW="18rem">
          <TextField
            label="Local emergency number, kept on this device"
            inputMode="tel"
            value={number}
            onText={(text) => {
              setNumber(text);
              keep(NUMBER_KEY, text);
            }}
          />
        </Box>
      </Caution>
      <Box display="grid" gridTemplateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
        {page.emergencies.map((row) => (
          <Card key={row.key} as="section">
            <Heading as="h2" fontSize="lead" color="accent" mb="2">
              {row.title}
            </Heading>
            <Box as="ol" pl="5" listStyleType="decimal">
              {row.measures.map((measure) => (
                <Text as="li" key={measure} mb="1">
                  {measure}
                </Text>
              ))}
            </Box>
          </Card>
        ))}
        <Card as="section">
          <Heading as="h2" fontSize="lead" mb="2">
            How chemicals are kept
          </Heading>
          <Box as="ul" pl="5" listStyleType="disc">
            {page.storage.map((rule) => (
              <Text as="li" key={rule} mb="1">
                {rule}
              </Text>
            ))}
          </Box>
        </Card>
      </Box>
    </Box>
  );
}
