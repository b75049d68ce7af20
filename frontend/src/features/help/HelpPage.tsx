import { Box, Grid, Heading, Link, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import Markdown from "react-markdown";
import { useParams } from "react-router";
import { Card } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";

const PAGES = import.meta.glob<string>("../../../../docs/guide/*.md", {
  query: "?raw",
  import: "default",
  eager: true,
});
const PICTURES = import.meta.glob<string>("../../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});

interface Page {
  key: string;
  title: string;
  text: string;
}

const GUIDE: readonly Page[] = Object.entries(PAGES)
  .sort(([one], [other]) => one.localeCompare(other))
  .map(([path, text]) => ({
    key: path.replace(/^.*\/\d+-|\.md$/g, ""),
    title: text.split("\n", 1)[0]?.replace(/^# /, "") ?? "",
    text: text.slice(text.indexOf("\n") + 1),
  }));

/** The guide, by task: the same pages as in docs/guide, so that it opens without a network. */
export function HelpPage() {
  const { page = GUIDE[0]?.key } = useParams();
  const shown = GUIDE.find(({ key }) => key === page) ?? GUIDE[0];
  useEffect(() => {
    document.title = "Help · Kumpan";
  }, []);
  if (shown === undefined) return null;
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "16rem minmax(0,1fr)" }} gap="5" alignItems="start">
      <Card as="nav" aria-label="Guide" p="3">
        <Text as="h2" fontWeight="700" mb="1" px="2">
          Help
        </Text>
        {GUIDE.map(({ key, title }) => (
          <PlainLink
            key={key}
            to={`/help/${key}`}
            display="flex"
            minH="44px"
            alignItems="center"
            px="2"
            borderRadius="8px"
            textDecoration="none"
            color="ink"
            fontWeight="500"
            bg={key === shown.key ? "band" : undefined}
            aria-current={key === shown.key ? "page" : undefined}
          >
            {title}
          </PlainLink>
        ))}
        <Text px="2" pt="2" fontSize="note" color="soft">
          Keyboard: press ? on any page.
        </Text>
      </Card>
      <Box as="article" maxW="44rem">
        <Heading as="h1" fontSize="title" mb="3">
          {shown.title}
        </Heading>
        <Markdown components={LOOK}>{shown.text}</Markdown>
      </Box>
    </Grid>
  );
}

const LOOK: Parameters<typeof Markdown>[0]["components"] = {
  p: ({ children }) => <Box mb="3">{children}</Box>,
  ol: ({ children }) => (
    <Box as="ol" pl="6" mb="3" listStyleType="decimal">
      {children}
    </Box>
  ),
  ul: ({ children }) => (
    <Box as="ul" pl="6" mb="3" listStyleType="disc">
      {children}
    </Box>
  ),
  li: ({ children }) => (
    <Box as="li" mb="1.5">
      {children}
    </Box>
  ),
  code: ({ children }) => (
    <Box as="code" bg="band" px="1.5" borderRadius="4px">
      {children}
    </Box>
  ),
  a: ({ children, href }) => (
    <Link href={href} textDecoration="underline">
      {children}
    </Link>
  ),
  img: ({ src, alt }) => {
    const found = Object.entries(PICTURES).find(([path]) => path.endsWith(String(src).replace(/^\.\./, "")));
    if (found === undefined) return null;
    return (
      <Box
        my="3"
        border="1px solid"
        borderColor="hairline"
        borderRadius="10px"
        overflow="hidden"
        maxW="40rem"
      >
        <img src={found[1]} alt={alt ?? ""} loading="lazy" />
      </Box>
    );
  },
};
