/** Why something was not done, where that is known. */
export const Problem = ({ why }: { why: string | undefined }) =>
  why === undefined ? null : (
    <p role="alert" className="text-red">
      {why}
    </p>
  );
