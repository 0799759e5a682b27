/**
 * What is waited for comes on a slow machine too, only later: nobody's clock fails a test. And files share
 * what they import, so that what a test leaves on its screen and in its browser is taken away here.
 */
import { configure } from "@testing-library/dom";
import { afterEach, beforeEach, vi } from "vitest";

configure({ asyncUtilTimeout: 20_000 });

const onScreen = async () => (typeof document === "undefined" ? null : await import("./screen"));

beforeEach(async () => (await onScreen())?.begin());
afterEach(async () => {
  (await onScreen())?.end();
  vi.unstubAllGlobals();
});
