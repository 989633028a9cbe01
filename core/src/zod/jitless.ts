// Zod as it may run here: it would compile its parsers with `new Function`, which the page's content security policy rightly
// forbids. Set before the first schema is made, so every schema of core takes Zod from here.
import { z } from "zod";

z.config({ jitless: true });

export { z };
