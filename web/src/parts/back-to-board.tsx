import { Link } from "react-router";

/** The way on from where there is nothing to be done. */
export function BackToBoard({ className = "" }: { className?: string }) {
  return (
    <p className={className}>
      <Link to="/" className="underline">
        Back to the job board
      </Link>
    </p>
  );
}
