/**
 * The shapes that the server sends, by the names that the screens use. Their fields come from the OpenAPI document of
 * the server (`api-types.ts`, made by `./lychnos record`): what the server renames, the compiler finds here.
 */
import type { components } from './api-types';

export type Api = components['schemas'];

// --- people and sites ---
export type Door = Api['DoorView'];
export type Me = Api['SignedInView'];
export type SessionView = Api['SessionView'];
export type DoctorLine = Api['DoctorLine'];
export type PersonView = Api['PersonView'];
export type Invited = Api['NewInvitation'];
export type TokenView = Api['TokenView'];
export type VantageView = Api['VantageView'];
export type Brief = Api['BringUpView'];
export type Found = Api['SearchResult'];

// --- board ---
export type MarkName = Api['BoardCell']['mark'];
export type Standing = Api['BoardRow']['standings'][number];
export type StageName = 'board' | Api['BoardTodo']['stage'];
export type Cell = Api['BoardCell'];
export type Row = Api['BoardRow'];
export type CourseStage = Api['BoardStage'];
export type Todo = Api['BoardTodo'];
export type BoardView = Api['BoardView'];

// --- prepare ---
export type RangeText = Api['RangeText'];
export type Statement = Api['NetworkStatement'];
export type FindingFix = Api['Fix'];
export type Finding = Api['Finding'];
export type UnitLabel = Api['UnitLabel'];
export type Value = Api['SheetValue'];
export type SheetRow = Api['SheetRow'];
export type Asks = Api['AskedField'];
export type KindBrief = Api['KindBrief'];
export type Sort = Api['SiteResourceSortView'];
export type Item = Api['SiteResourceView'];
export type Measured = Api['Measured'];
export type ImagesView = Api['ImagesView'];
export type RackChecksView = Api['RackChecksView'];
export type RackMachine = Api['RackMachine'];
export type RequestsView = Api['RequestsView'];
export type TeamRequest = Api['RequestView'];
export type RequestChange = Api['RequestChange'];
export type Image = Api['ImageView'];
export type ReceivedBytes = Api['ReceivedBytes'];
export type PrepareView = Api['PrepareView'];
/** A cell that is set: `seen` is what it held, if that matters. */
export type CellText = Required<Omit<Api['FactCell'], 'seen'>> & Pick<Api['FactCell'], 'seen'>;
export type FactsReport = Api['FactsReport'];
export type ColumnView = Api['ColumnView'];
export type TableReport = Api['FactTableReport'];
export type LabelReport = Api['LabelReport'];

// --- allocate ---
export type ProposalLine = Api['ProposalLine'];
export type Growth = Api['Growth'];
export type Proposal = Api['PlacementProposal'];
export type Fit = Api['Fit'];
export type Fits = Api['Fits'];
export type Strip = Api['RibbonStrip'];
export type Seat = Api['RibbonSeat'];
export type UnknownDevice = Api['UnknownDeviceView'];
export type NetworkTab = Api['NetworkTab'];
export type Density = Api['Density'];
export type Probed = Api['Probed'];
export type NamesView = Api['NamesView'];
export type RibbonView = Api['RibbonView'];

// --- configure ---
export type Lane = Api['SetupLane'];
export type ConfigureView = Api['ConfigureView'];
export type StepView = Api['SetupStepView'];

// --- prove ---
export type Endpoint = Api['EndpointView'];
export type SharedCause = Api['SharedCause'];
export type TraitChange = Api['TraitChangeView'];
export type RungName = 'ANSWERS' | 'PORT' | 'TLS' | 'SERVICE' | 'IDENTITY' | 'AS_PLANNED' | 'SAFE';
export type NoticeTarget = Api['NoticeTargetView'];
export type ProveView = Api['ProveView'];
export type Seen = Api['RungView'];
export type Detail = Api['EndpointDetail'];
export type CertificateWay = Api['CertificateWay'];
export type Signing = Api['SigningStep'];

// --- hand over ---
export type SignStanding = Api['SignStanding'];
export type UnitPart = Api['ReplaceablePart'];
export type ChainLook = Api['ChainLook'];
export type PasswordChangesView = Api['PasswordChangesView'];
export type HandoverView = Api['HandoverView'];
