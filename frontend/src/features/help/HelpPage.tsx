import { Box, Grid, Heading, Link, Text } from "@chakra-ui/react";
import type { Root, RootContent } from "hast";
import { createElement, type ReactNode, useEffect } from "react";
import { useParams } from "react-router";
import { Card } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";

const PAGES = import.meta.glob<{ title: string; tree: Root }>("../../../../docs/guide/*.md", {
  query: "?guide",
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
  tree: Root;
}

const GUIDE: readonly Page[] = Object.entries(PAGES)
  .sort(([one], [other]) => one.localeCompare(other))
  .map(([path, page]) => ({ key: path.replace(/^.*\/\d+-|\.md(\?.*)?$/g, ""), ...page }));

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
        {shown.tree.children.map(drawn)}
      </Box>
    </Grid>
  );
}

/** One part of a page, in the app's own type. */
function drawn(node: RootContent, index: number): ReactNode {
  if (node.type === "text") return node.value;
  if (node.type !== "element") return null;
  const inside = node.children.map(drawn);
  switch (node.tagName) {
    case "p":
      return (
        <Box key={index} mb="3">
          {inside}
        </Box>
      );
    case "ol":
    case "ul":
      return (
        <Box
          key={index}
          as={node.tagName}
          pl="6"
          mb="3"
          listStyleType={node.tagName === "ol" ? "decimal" : "disc"}
        >
          {inside}
        </Box>
      );
    case "li":
      return (
        <Box as="li" key={index} mb="1.5">
          {inside}
        </Box>
      );
    case "code":
      return (
        <Box as="code" key={index} bg="band" px="1.5" borderRadius="4px">
          {inside}
        </Box>
      );
    case "a":
      return (
        <Link key={index} href={String(node.properties.href)} textDecoration="underline">
          {inside}
        </Link>
      );
    case "img":
      return (
        <Picture key={index} src={String(node.properties.src)} words={String(node.properties.alt ?? "")} />
      );
    default:
      return createElement(node.tagName, { key: index }, ...inside);
  }
}

function Picture({ src, words }: { src: string; words: string }) {
  const found = Object.entries(PICTURES).find(([path]) => path.endsWith(src.replace(/^\.\./, "")));
  if (found === undefined) return null;
  return (
    <Box
      my="3"
      border="1px solid"
      borderColor="hairline"
      borderRadius="10px"
      overflow="hidden"
      w="fit-content"
      maxW="100%"
    >
      <img src={found[1]} alt={words} loading="lazy" />
    </Box>
  );
}
