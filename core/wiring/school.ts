import type { LeadNode, Policy, PortNode } from "../assembly";

/** 1 when putting this lead on this header or hub departs from the shop's way, else 0. */
export function schoolDeparture(policy: Policy, node: LeadNode, root: PortNode): 0 | 1 {
  const onHub = root.part.type.kind !== "board";
  const at = root.port.role;
  const off = (good: boolean): 0 | 1 => (good ? 0 : 1);
  switch (node.lead.role) {
    case "cpu-fan":
      return off(at === "cpu-fan" || at === "cpu-optional-fan");
    case "cooler-speed":
      return off(at === "cpu-fan");
    case "pump":
      return off(policy.cooling === "pump-first" ? at === "cpu-fan" : at === "pump");
    case "radiator-fan":
      if (policy.cooling === "fans-follow-cpu") return off(at === "cpu-fan" || at === "cpu-optional-fan");
      if (policy.cooling === "self-controlled") return off(root.part.id === node.part.id || onHub);
      return off(at !== "cpu-fan" && at !== "pump");
    case "case-fan":
      if (policy.caseFans === "hub") return off(onHub);
      if (policy.caseFans === "own-header") return off(!onHub && at === "case-fan");
      return off(onHub || at === "case-fan");
    case "hub-control":
      return off(at === "case-fan");
    default:
      return 0;
  }
}

/** The school in a clause, for "why here". */
export function schoolWords(policy: Policy, node: LeadNode): string {
  switch (node.lead.role) {
    case "pump":
      return policy.cooling === "pump-first"
        ? "the shop watches the pump on the CPU fan header"
        : "a pump header runs it at full speed and reports it";
    case "radiator-fan":
      return policy.cooling === "fans-follow-cpu" ? "radiator fans follow the CPU" : "the CPU fan header is the pump's";
    case "cpu-fan":
      return "the CPU fan header stops start-up when it sees no speed signal";
    case "cooler-speed":
      return "the cooler reports its speed to the CPU fan header";
    case "case-fan":
      return {
        "group-by-place": "fans of one place share one curve",
        "own-header": "each case fan has its own header",
        hub: "case fans go on the hub",
      }[policy.caseFans];
    default:
      return "";
  }
}
