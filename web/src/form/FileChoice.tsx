interface Props {
  /** What can be chosen, as the browser's dialog takes it. */
  accept: string;
  /** What it says. */
  children?: string;
  look?: "link" | "act";
  /** Whether a tablet opens its camera for it. */
  camera?: boolean;
  className?: string;
  onFile: (file: File) => void;
}

/** The way to a file on this machine; the same may be chosen again. */
export const FileChoice = ({
  accept,
  children = "choose the file",
  look = "link",
  camera,
  className = "",
  onFile,
}: Props) => (
  <label className={`${look} cursor-pointer focus-within:outline-2 ${className}`}>
    {children}
    <input
      type="file"
      accept={accept}
      {...(camera && { capture: "environment" })}
      className="sr-only"
      onChange={(event) => {
        const [file] = event.target.files ?? [];
        if (file) onFile(file);
        event.target.value = "";
      }}
    />
  </label>
);

/** Text files of tables and curves. */
export const CSV = ".csv,.txt,text/csv,text/plain";
