"use client";
import { GROUP, type Group, SHOW, type Show } from "./find-leads";

/** Finds, filters and groups the list of leads. */
export function FindLeads({
  text,
  onText,
  show,
  onShow,
  group,
  onGroup,
  found,
  of,
  ports,
  onEnter,
}: {
  text: string;
  onText: (text: string) => void;
  show: Show;
  onShow: (show: Show) => void;
  group: Group;
  onGroup: (group: Group) => void;
  found: number;
  of: number;
  /** Ports with room that answer to the words. */
  ports: number;
  onEnter: () => void;
}) {
  return (
    <div className="grid shrink-0 grid-cols-2 gap-2 border-b border-rule px-4 pb-2">
      <input
        id="find-lead"
        type="search"
        className="field col-span-2"
        aria-label="Find a lead or a port with room"
        placeholder="Find by name, tag, port or serial"
        maxLength={80}
        value={text}
        onChange={(e) => onText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter") onEnter();
          if (e.key === "Escape") {
            onText("");
            e.currentTarget.blur();
          }
        }}
      />
      <select className="field" aria-label="Show leads" value={show} onChange={(e) => onShow(e.target.value as Show)}>
        {Object.entries(SHOW).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </select>
      <select className="field" aria-label="Group leads" value={group} onChange={(e) => onGroup(e.target.value as Group)}>
        {Object.entries(GROUP).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </select>
      <p role="status" className={found === of ? "sr-only" : "col-span-2 text-second text-soft"}>
        {found} of {of} leads{ports > 0 ? `, ${ports} ${ports === 1 ? "port" : "ports"} with room` : ""}
      </p>
    </div>
  );
}
