// What crosses the border, by short names; made from the server's records at the build.
import { org } from "../build/border";

/** What core tells: a text as it stands, or a key of the catalogue and what is put into its text. */
export type Said = string | { say: string; with?: Record<string, number | Said> };
export type Me = org.whinridge.app.daybook.DayController.Me;
export type MyRound = org.whinridge.app.daybook.DayController.MyRound;
export type ContactAnswer = org.whinridge.app.daybook.Contact.Answer;
export type VisitAnswer = org.whinridge.app.daybook.VisitAnswer;
export type Manifest = org.whinridge.app.daybook.Pack.Manifest;
export type PackFeatures = org.whinridge.app.daybook.Pack.Features;
export type PackPlan = org.whinridge.app.daybook.Pack.Plan;
export type PackWork = org.whinridge.app.daybook.Pack.Work;
export type ProjectMap = org.whinridge.app.map.ProjectMap;
export type MapEntry = org.whinridge.app.map.ProjectMap.Entry;
export type FeatureCard = org.whinridge.app.layer.LayerApi.Card;
export type LedgerEntry = org.whinridge.app.layer.LayerApi.Entry;
export type RoundNow = org.whinridge.app.round.RoundLive.Now;
export type Planning = org.whinridge.app.round.RoundApi.Planning;
export type Chosen = org.whinridge.app.round.Choosing.Chosen;
export type Spot = org.whinridge.app.round.Choosing.Spot;
export type RoundPack = org.whinridge.app.round.RoundApi.Pack;
export type RoundSeen = org.whinridge.app.round.RoundOutlook.Seen;
export type SentEdits = org.whinridge.app.layer.SentEdits;
export type FormDraft = org.whinridge.app.form.FormController.State;
