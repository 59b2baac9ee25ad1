import { Link } from "react-router";
import { useScreen } from "../blade/screen.ts";
import { Group } from "./Group.tsx";

/** The way to how straight the blade is, from wherever it may have moved. */
export function StraightLink({ words }: { words: string }) {
  const { id } = useScreen();
  return (
    <Group title="Straight">
      <p className="text-sm">
        {words}{" "}
        <Link className="font-semibold underline" to={`/blades/${id}/straight`}>
          How straight it is
        </Link>
      </p>
    </Group>
  );
}
