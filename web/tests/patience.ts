/** What is waited for comes on a slow machine too, only later: nobody's clock fails a test. */
import { configure } from "@testing-library/dom";

configure({ asyncUtilTimeout: 20_000 });
