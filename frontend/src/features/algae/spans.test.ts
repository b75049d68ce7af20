import { describe, expect, it } from "vitest";
import { daysText, moneyText, spanText } from "./spans";

describe("a band of days in words", () => {
  it("names the likely day and both ends", () => {
    const year = new Date().getFullYear();
    const text = spanText({ low: `${year}-06-07`, likely: `${year}-06-09`, high: `${year}-06-13` });
    expect(text).toMatch(/^likely \w{3}, Jun 9, between \w{3}, Jun 7 and \w{3}, Jun 13$/);
  });
  it("says one day where the band is one day wide", () => {
    const year = new Date().getFullYear();
    const day = `${year}-06-09`;
    expect(spanText({ low: day, likely: day, high: day })).toMatch(/^on \w{3}, Jun 9$/);
  });
  it("names the year where it is another", () => {
    const day = `${new Date().getFullYear() + 2}-01-02`;
    expect(spanText({ low: day, likely: day, high: day })).toContain(String(new Date().getFullYear() + 2));
  });
});

describe("money", () => {
  it("is a span of whole units, one figure where both ends round alike", () => {
    expect(moneyText([12.2, 30.7], "$")).toBe("$12 to $31");
    expect(moneyText([12.2, 20, 30.7], "€")).toBe("€12 to €31");
    expect(moneyText([12.2, 12.4], "$")).toBe("$12");
    expect(moneyText([7], "kr")).toBe("kr7");
  });
  it("says that no price is told", () => {
    expect(moneyText(null, "$")).toBe("no price on the shelf");
    expect(moneyText([], "$")).toBe("no price on the shelf");
  });
});

describe("days", () => {
  it("are a span, one figure where both ends round alike, and one day is one day", () => {
    expect(daysText([2, 5])).toBe("2 to 5 days");
    expect(daysText([3.2, 2.9])).toBe("3 days");
    expect(daysText([1, 1])).toBe("1 day");
    expect(daysText([0, 1])).toBe("0 to 1 days");
  });
});
