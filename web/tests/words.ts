/** The unit tests speak English. */
import { speak } from "../src/words/words";

await speak("en");
