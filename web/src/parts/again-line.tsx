// Says that something is tried again, and tries it now.
import { tryNow } from "../api/again.ts";
import { Button } from "./button.tsx";

export function AgainLine({ className = "" }: { className?: string }) {
  return (
    <p className={`flex items-center gap-3 ${className}`}>
      It is tried again by itself.
      <Button onClick={tryNow}>Try now</Button>
    </p>
  );
}
