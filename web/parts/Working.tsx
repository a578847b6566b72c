/** Long work that goes on beside the screen, of which nobody can say how much is left: what it is, and a bar that moves. */
export const Working = ({ children, className = '' }: { children: string; className?: string }) => (
  <div className={`flex max-w-96 flex-col gap-1.5 ${className}`}>
    <p className="text-graphite" role="status">
      {children}
    </p>
    <span
      role="progressbar"
      aria-label={children}
      className="border-edge relative block h-2 overflow-hidden rounded-sm border bg-white"
    >
      <span className="working bg-lath-dark absolute inset-y-0 w-1/3" />
    </span>
  </div>
);
