/** The shapes of the interface. Made by `./lychnos record` from the OpenAPI document of the server. */
export type paths = Record<string, never>;
export type webhooks = Record<string, never>;
export interface components {
  schemas: {
    About: {
      /** Format: int64 */
      networkId: number | null;
      /** Format: int64 */
      unitId: number | null;
    };
    /** @enum {string} */
    Act: 'SET_FACT' | 'ADD_TIME_SERVER' | 'DROP_TIME_SERVER' | 'CHANGE_RANGE';
    /** @example 10.40.8.40 */
    Address: string;
    AddressReport: {
      fresh: components['schemas']['AddressUse'][];
      /** Format: int32 */
      ours: number;
      /** Format: int32 */
      elsewhere: number;
      faults: components['schemas']['LabelFault'][];
    };
    AddressUse: {
      address: string;
      name: string;
      source: string;
    };
    AdjustmentBringUp: {
      /** Format: int64 */
      id: number;
      name: string;
    };
    AdjustmentPlace: {
      what: string;
      title: string;
      value: string;
      form: string;
      secret: boolean;
    };
    AdjustmentRow: {
      /** Format: int64 */
      id: number;
      /** Format: int64 */
      siteId: number;
      site: string;
      /** Format: int64 */
      bringUpId: number | null;
      bringUp: string | null;
      what: string;
      value: string;
      hasPassword: boolean;
      reason: string;
      by: string;
      at: components['schemas']['Instant'];
    };
    AdjustmentSite: {
      /** Format: int64 */
      id: number;
      name: string;
      bringUps: components['schemas']['AdjustmentBringUp'][];
    };
    AdjustmentWanted: {
      /** Format: int64 */
      siteId?: number;
      /** Format: int64 */
      bringUpId?: number;
      what?: string;
      value?: string;
      password?: string;
      reason?: string;
    };
    Announcement: {
      kind?: string;
      /** Format: int32 */
      count?: number;
      /** Format: int32 */
      members?: number;
      mac?: string;
    };
    AskedField: {
      name: string;
      title: string;
      scope: string;
      type: string;
      example: string;
      find: string;
      asked: string;
      choices: string[];
      wanted: boolean;
      permanent: boolean;
      secret: boolean;
    };
    BenchComparison: {
      read: string | null;
      by: string | null;
      at: components['schemas']['Instant'] | null;
    };
    BenchLane: {
      /** Format: int64 */
      unitId: number;
      /** Format: int64 */
      dialogueId: number;
      name: string;
      state: string;
      prerequisite: string;
      parts: components['schemas']['LanePart'][];
      ahead: components['schemas']['LanePart'][];
    };
    BenchLanes: {
      lanes: components['schemas']['BenchLane'][];
      startable: components['schemas']['StartableUnit'][];
    };
    BenchMember: {
      /** Format: int64 */
      dialogueId: number | null;
      label: string;
      line: string;
      cable: components['schemas']['CableUse'];
      settings: string;
      state: string;
      mode: string;
      hold: components['schemas']['HoldView'] | null;
      note: string;
      prerequisite: string;
      identified: boolean;
      identity: string;
      openedAt: components['schemas']['Instant'] | null;
      endedAt: components['schemas']['Instant'] | null;
      steps: components['schemas']['BenchStep'][];
      atPages: boolean;
      fillsPages: boolean;
      compare: components['schemas']['BenchComparison'] | null;
      values: components['schemas']['BenchValue'][];
    };
    BenchServicePort: {
      address: string;
      page: string;
      laptop: string;
    };
    BenchStep: {
      /** Format: int32 */
      place: number;
      title: string;
      sort: string;
      answer: string;
      source: string;
      marks: string[];
      progress: string;
      sent: string | null;
      /** Format: int32 */
      times: number;
      by: string;
      at: components['schemas']['Instant'] | null;
      evidence: string;
      /** Format: int64 */
      about: number;
      /** Format: int64 */
      atMost: number;
      fields: {
        [key: string]: string;
      };
      differ: string[];
      told: {
        [key: string]: string;
      };
    };
    BenchValue: {
      name: string;
      title: string;
      text: string | null;
    };
    BenchView: {
      /** Format: int64 */
      unitId: number;
      name: string;
      kind: string;
      kindTitle: string;
      position: string;
      plug: string;
      bring: string[];
      runState: string;
      runNote: string;
      members: components['schemas']['BenchMember'][];
      byHand: boolean;
      fetchesLog: boolean;
      logs: components['schemas']['MachineLogLine'][];
      recover: string;
      window: components['schemas']['BenchWindow'] | null;
      servicePort: components['schemas']['BenchServicePort'] | null;
    };
    BenchWindow: {
      from: components['schemas']['Instant'];
      to: components['schemas']['Instant'];
      open: boolean;
    };
    BoardCell: {
      mark: components['schemas']['Mark'];
      text: string;
      since: components['schemas']['Instant'] | null;
    };
    BoardCourse: {
      prepare: components['schemas']['BoardStage'];
      allocate: components['schemas']['BoardStage'];
      configure: components['schemas']['BoardStage'];
      prove: components['schemas']['BoardStage'];
      handover: components['schemas']['BoardStage'];
    };
    BoardRow: {
      /** Format: int64 */
      unitId: number;
      name: string;
      position: string;
      rack: string | null;
      kind: string;
      serial: string | null;
      mac: string | null;
      address: string | null;
      prepare: components['schemas']['BoardCell'];
      allocate: components['schemas']['BoardCell'];
      configure: components['schemas']['BoardCell'];
      prove: components['schemas']['BoardCell'];
      handover: components['schemas']['BoardCell'];
      standings: components['schemas']['Standing'][];
      sentence: string;
    };
    BoardStage: {
      fault: string;
      text: string;
      /** Format: int32 */
      percent: number;
    };
    BoardTodo: {
      mark: components['schemas']['Mark'];
      title: string;
      text: string;
      stage: components['schemas']['Stage'];
      /** Format: int64 */
      unitId: number | null;
    };
    BoardView: {
      /** Format: int64 */
      id: number;
      name: string;
      due: components['schemas']['LocalDate'] | null;
      network: string;
      /** Format: int32 */
      units: number;
      rows: components['schemas']['BoardRow'][];
      course: components['schemas']['BoardCourse'];
      todos: components['schemas']['BoardTodo'][];
      waiting: components['schemas']['BoardTodo'][];
    };
    BornFact: {
      title: string;
      value: string;
    };
    Break: {
      /** Format: int64 */
      number: number;
      why: string;
    };
    BringUpView: {
      /** Format: int64 */
      id: number;
      name: string;
      due: components['schemas']['LocalDate'] | null;
      site: string;
      siteCode: string;
      /** Format: int64 */
      units: number;
      /** Format: int64 */
      signed: number;
    };
    BringUpWanted: {
      name?: string;
      siteCode?: string;
      siteName?: string;
      due?: components['schemas']['LocalDate'];
      positions?: string[];
    };
    /** @enum {string} */
    CableUse: 'NONE' | 'POSSIBLE' | 'CHOSEN';
    /** @enum {string} */
    Certainty: 'SURE' | 'LIKELY' | 'OPEN';
    CertificateChain: {
      chain?: string;
    };
    CertificateRequestEntry: {
      request?: string;
    };
    CertificateRequestText: {
      request: string;
    };
    /** @enum {string} */
    CertificateWay: 'REDFISH' | 'PAGES' | 'BY_HAND';
    ChainLook: {
      /** Format: int64 */
      links: number;
      /** Format: int64 */
      records: number;
      breaks: components['schemas']['Break'][];
      last: string;
    };
    ChangeableUnit: {
      /** Format: int64 */
      unitId: number;
      name: string;
      position: string;
    };
    CheckPace: {
      /** Format: int32 */
      minutes?: number;
    };
    CheckRequest: {
      units?: number[];
      rung?: components['schemas']['Rung'];
    };
    ChecksAsked: {
      /** Format: int32 */
      count: number;
    };
    ChosenNetwork: {
      /** Format: int64 */
      networkId?: number;
    };
    ClaimWanted: {
      /** Format: int64 */
      unitId?: number;
      role?: string;
      /** Format: int64 */
      networkId?: number;
      address?: string;
      hostName?: string;
      alias?: string;
    };
    ColumnMeaning: {
      word: string;
      title: string;
    };
    ColumnView: {
      /** Format: int32 */
      index: number;
      heading: string;
      sample: string;
      meaning: string;
    };
    ConfigureView: {
      lanes: components['schemas']['SetupLane'][];
      /** Format: int32 */
      ready: number;
      readyNames: string;
      hold: string;
      counts: {
        [key: string]: number;
      };
    };
    ConsoleStart: {
      mode?: string;
      reason?: string;
      units?: number[];
    };
    ContradictionView: {
      file: string;
      stated: string;
      read: string;
    };
    Density: {
      first: string;
      /** Format: int32 */
      taken: number;
      /** Format: int32 */
      kept: number;
      /** Format: int32 */
      pool: number;
    };
    DescribedView: {
      product: string;
      version: string;
      /** Format: int32 */
      cores: number;
      memory: string;
      disk: string;
      networks: string[];
    };
    DoctorLine: {
      code: string;
      state: components['schemas']['DoctorState'];
      text: string;
      advice: string | null;
    };
    /** @enum {string} */
    DoctorState: 'GOOD' | 'LOOK' | 'BAD';
    DoorView: {
      firstLeadWanted: boolean;
      lab: boolean;
    };
    EarlierCheck: {
      at: components['schemas']['Instant'];
      /** Format: int32 */
      height: number;
      proven: boolean;
      sentence: string;
      standings: string;
    };
    EndpointDetail: {
      endpoint: components['schemas']['EndpointView'];
      press: string;
      rungs: components['schemas']['RungView'][];
      marks: components['schemas']['RungView'][];
      fields: components['schemas']['Field'][];
      firmware: string | null;
      fingerprint: string | null;
      shown: string | null;
      place: string | null;
      provenAt: components['schemas']['Instant'] | null;
      before: components['schemas']['EarlierCheck'][];
      changes: components['schemas']['TraitChangeView'][];
      hostKey: string | null;
      certificate: components['schemas']['CertificateWay'] | null;
      signing: components['schemas']['SigningStep'] | null;
      /** Format: int64 */
      toCompare: number | null;
      journal: components['schemas']['JournalLine'][];
    };
    EndpointView: {
      /** Format: int64 */
      unitId: number;
      /** Format: int64 */
      claimId: number;
      role: string;
      name: string;
      fqdn: string;
      address: string;
      position: string;
      serial: string | null;
      standings: components['schemas']['Standing'][];
      beside: {
        [key: string]: components['schemas']['Standing'];
      };
      /** Format: int32 */
      height: number;
      proven: boolean;
      sentence: string;
      at: components['schemas']['Instant'] | null;
      /** Format: double */
      millis: number | null;
      checking: boolean;
      settingUp: boolean;
      ready: boolean;
    };
    /** @enum {string} */
    Event: 'SENT' | 'DONE' | 'ASKED' | 'DIFFERED';
    ExampleMember: {
      label: string;
      steps: components['schemas']['ExampleStep'][];
    };
    ExamplePlace: {
      purpose: string;
      role: string;
      address: string;
      name: string;
    };
    ExampleStep: {
      title: string;
      sort: string;
      asked: boolean;
      answer: string;
      fields: {
        [key: string]: string;
      };
    };
    FactCell: {
      /** Format: int64 */
      unitId?: number;
      member?: string;
      name?: string;
      value?: string;
      seen?: string;
    };
    FactCellFault: {
      /** Format: int64 */
      unitId: number;
      member: string;
      name: string;
      value: string;
      reason: string;
    };
    FactCells: {
      cells?: components['schemas']['FactCell'][];
    };
    FactLine: {
      name: string;
      title: string;
      whose: string;
      find: string;
      asked: string;
      remarks: components['schemas']['Remark'][];
      fallback: string;
    };
    /** @enum {string} */
    FactSort: 'TEXT' | 'SAME_TEXT' | 'MADE_SECRET' | 'GIVEN_SECRET';
    FactTableReport: {
      /** Format: int64 */
      changeId: number | null;
      /** Format: int32 */
      cells: number;
      faults: components['schemas']['LabelFault'][];
      columns: components['schemas']['ColumnView'][];
      meanings: components['schemas']['ColumnMeaning'][];
    };
    FactsReport: {
      /** Format: int64 */
      changeId: number | null;
      /** Format: int32 */
      changed: number;
      faults: components['schemas']['FactCellFault'][];
    };
    Field: {
      name: string;
      planned: string;
      found: string;
      agrees: boolean;
    };
    Finding: {
      code: string;
      blocks: boolean;
      what: string;
      why: string;
      about: components['schemas']['About'];
      fix: components['schemas']['Fix'] | null;
    };
    FirstLeadWanted: {
      code?: string;
      login?: string;
      name?: string;
      password?: string;
    };
    Fit: {
      lines: components['schemas']['ProposalLine'][];
      growth: components['schemas']['Growth'][];
      reasons: string[];
    };
    Fits: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      kind: string;
      about: string;
      fits: components['schemas']['Fit'][];
      almost: string | null;
      fault: string | null;
    };
    Fix: {
      label: string;
      act: components['schemas']['Act'];
      /** Format: int64 */
      id: number;
      member: string;
      field: string;
      value: string;
    };
    FormSheet: {
      title?: string;
      fields?: components['schemas']['SheetField'][];
    };
    GoOnRequest: {
      typed?: string;
      reason?: string;
    };
    Growth: {
      /** Format: int64 */
      unitId: number;
      /** Format: int64 */
      networkId: number;
      run: string;
    };
    HandoverLine: {
      /** Format: int64 */
      unitId: number;
      /** Format: int64 */
      claimId: number;
      name: string;
      role: string;
      address: string;
      serial: string;
      certificate: string;
      provenAt: components['schemas']['Instant'] | null;
    };
    HandoverView: {
      name: string;
      lines: components['schemas']['HandoverLine'][];
      units: components['schemas']['SignStanding'][];
      /** Format: int32 */
      proven: number;
      /** Format: int32 */
      names: number;
      items: components['schemas']['OpenItemView'][];
      proposed: components['schemas']['OpenItemProposal'][];
      retired: components['schemas']['RetiredUnit'][];
      exports: string[];
    };
    HeardDeviceView: {
      network: string;
      address: string;
      mac: string | null;
      sentence: string;
      firstHeard: components['schemas']['Instant'];
      lastHeard: components['schemas']['Instant'];
    };
    HoldView: {
      why: string;
      /** Format: int32 */
      step: number;
      sentence: string;
      shown: string;
      typed: string;
      passable: boolean;
    };
    ImagePapers: {
      manifest?: string;
      description?: string;
    };
    ImageStatement: {
      name?: string;
      /** Format: int64 */
      bytes?: number;
      inFolder?: boolean;
      manifest?: string;
      description?: string;
    };
    ImageView: {
      /** Format: int64 */
      id: number;
      name: string;
      /** Format: int64 */
      bytes: number;
      inFolder: boolean;
      state: string;
      /** Format: int64 */
      received: number;
      /** Format: int64 */
      bytesRead: number;
      fault: string | null;
      sha256: string | null;
      format: string | null;
      files: components['schemas']['ReadFile'][];
      manifest: string;
      description: string;
      described: components['schemas']['DescribedView'] | null;
      contradictions: components['schemas']['ContradictionView'][];
      stated: boolean;
      addedBy: string;
      checkedAt: components['schemas']['Instant'] | null;
    };
    ImagesView: {
      images: components['schemas']['ImageView'][];
      folder: string;
      waiting: string[];
    };
    /**
     * Format: date-time
     * @example 2022-03-10T16:15:50Z
     */
    Instant: string;
    Invitation: {
      login: string;
      name: string;
    };
    InvitationAnswer: {
      token?: string;
      password?: string;
    };
    InvitationLink: {
      token?: string;
    };
    JournalLine: {
      at: components['schemas']['Instant'];
      actor: string;
      act: string;
    };
    KeptRecording: {
      /** Format: int64 */
      id: number;
      name: string;
      stays: boolean;
      keptBy: string | null;
      keptAt: components['schemas']['Instant'];
    };
    KeptSetup: {
      /** Format: int64 */
      dialogue: number;
      /** Format: int64 */
      unitId: number;
      unit: string;
      member: string;
      at: components['schemas']['Instant'];
      ended: boolean;
    };
    KindBrief: {
      id: string;
      /** Format: int32 */
      version: number;
      title: string;
      about: string;
      counts: number[];
      bring: string[];
      plug: string;
      facts: components['schemas']['AskedField'][];
    };
    KindChange: {
      part: components['schemas']['KindPart'];
      sort: components['schemas']['Sort'];
      what: string;
      before: string;
      after: string;
    };
    KindCoverage: {
      automatic: string[];
      guided: string[];
      proven: string[];
      notMeasured: string[];
    };
    KindDraftView: {
      kindId: string;
      text: string;
      version: string;
      faults: components['schemas']['KindFault'][];
      title: string;
      summary: components['schemas']['KindSummary'] | null;
    };
    KindExample: {
      unit: string;
      places: components['schemas']['ExamplePlace'][];
      members: components['schemas']['ExampleMember'][];
    };
    KindFault: {
      /** Format: int32 */
      line: number;
      /** Format: int32 */
      column: number;
      path: string;
      reason: string;
    };
    KindFormText: {
      title?: string;
      shortName?: string;
      members?: string[];
      /** Format: int32 */
      each?: number;
      /** Format: int32 */
      shared?: number;
      label?: string[];
      user?: string;
      password?: string;
      /** Format: int32 */
      port?: number;
      open?: number[];
      closed?: number[];
      firstPage?: string;
      sheet?: components['schemas']['FormSheet'][];
    };
    KindLine: {
      id: string;
      title: string;
      /** Format: int32 */
      version: number | null;
      way: string;
      shipped: boolean;
      retired: boolean;
      draft: boolean;
      update: boolean;
      /** Format: int64 */
      units: number;
      /** Format: int64 */
      older: number;
      /** Format: int64 */
      done: number;
      /** Format: int64 */
      usualSeconds: number | null;
      last: components['schemas']['LastSetup'] | null;
    };
    KindMove: {
      /** Format: int32 */
      version?: number;
      reason?: string;
    };
    KindMoveAll: {
      /** Format: int64 */
      bringUpId?: number;
      /** Format: int32 */
      from?: number;
      /** Format: int32 */
      to?: number;
      reason?: string;
    };
    KindMoved: {
      /** Format: int32 */
      moved: number;
      stay: components['schemas']['KindStays'][];
    };
    /** @enum {string} */
    KindPart: 'FACT' | 'ADDRESS' | 'NAME' | 'STEP' | 'CHECK' | 'FLOW' | 'LOGIN';
    KindPreview: {
      faults: components['schemas']['KindFault'][];
      summary: components['schemas']['KindSummary'] | null;
      way: string;
      example: components['schemas']['KindExample'] | null;
    };
    KindSetup: {
      line: string;
      oneByOne: boolean;
      steps: components['schemas']['KindStep'][];
      wipe: string[];
    };
    KindSetupLine: {
      /** Format: int64 */
      bringUpId: number;
      /** Format: int64 */
      unitId: number;
      unit: string;
      /** Format: int32 */
      version: number;
      state: string;
      endedAt: components['schemas']['Instant'];
      /** Format: int64 */
      seconds: number;
    };
    KindStays: {
      unit: string;
      reason: string;
    };
    KindStep: {
      title: string;
      remarks: components['schemas']['Remark'][];
      answer: string;
    };
    KindSummary: {
      before: string[];
      facts: components['schemas']['FactLine'][];
      addresses: string[];
      name: components['schemas']['NameLine'];
      setup: components['schemas']['KindSetup'];
      proven: string[];
      restart: string;
      flows: string[];
      coverage: components['schemas']['KindCoverage'];
    };
    KindTrial: {
      description?: string;
      recording?: string;
      timing?: string;
      /** Format: int64 */
      unit?: number;
      member?: string;
    };
    KindTried: {
      agrees: boolean;
      done: string[];
      open: string[];
      differences: string[];
      steps: components['schemas']['StepReached'][];
      moments: components['schemas']['TriedMoment'][];
    };
    KindUse: {
      /** Format: int64 */
      bringUpId: number;
      bringUp: string;
      /** Format: int32 */
      version: number;
      /** Format: int64 */
      units: number;
    };
    KindVersionLine: {
      /** Format: int32 */
      version: number;
      digest: string;
      note: string;
      despite: string;
      shipped: boolean;
      by: string;
      at: components['schemas']['Instant'];
      /** Format: int64 */
      units: number;
    };
    KindView: {
      line: components['schemas']['KindLine'];
      about: string;
      shortName: string;
      fault: string | null;
      summary: components['schemas']['KindSummary'] | null;
      draft: components['schemas']['KindDraftView'] | null;
      history: components['schemas']['KindVersionLine'][];
      uses: components['schemas']['KindUse'][];
      setups: components['schemas']['KindSetupLine'][];
      adjustments: components['schemas']['AdjustmentRow'][];
      places: components['schemas']['AdjustmentPlace'][];
      sites: components['schemas']['AdjustmentSite'][];
    };
    LabelComparison: {
      read?: string;
    };
    LabelFault: {
      /** Format: int32 */
      line: number;
      column: string;
      value: string;
      reason: string;
    };
    LabelReport: {
      /** Format: int64 */
      importId: number | null;
      taken: components['schemas']['LabelTaken'][];
      faults: components['schemas']['LabelFault'][];
      columns: components['schemas']['ColumnView'][];
    };
    LabelTaken: {
      /** Format: int32 */
      line: number;
      serial: string;
      mac: string;
      position: string;
      change: string;
    };
    LanePart: {
      kind: string;
      title: string;
      from: components['schemas']['Instant'] | null;
      to: components['schemas']['Instant'] | null;
      /** Format: int64 */
      about: number;
      /** Format: int64 */
      atMost: number;
    };
    LastSetup: {
      state: string;
      at: components['schemas']['Instant'];
    };
    LearnQuestion: {
      sort: components['schemas']['QuestionSort'];
      entries: number[];
      evidence: string[];
      options: string[];
    };
    LearntFact: {
      name: string;
      title: string;
      sort: components['schemas']['FactSort'];
      find: string;
    };
    Lesson: {
      description?: string;
      /** Format: int64 */
      dialogue?: number;
      recording?: string;
      /** Format: int64 */
      unit?: number;
      member?: string;
      answers?: components['schemas']['LessonAnswers'];
    };
    LessonAnswers: {
      texts?: {
        [key: string]: components['schemas']['Meaning'];
      };
      commandsTold?: boolean;
      parts?: {
        [key: string]: string[];
      };
      values?: {
        [key: string]: string;
      };
      marks?: {
        [key: string]: components['schemas']['LessonMark'][];
      };
      found?: {
        [key: string]: string;
      };
    };
    LessonLine: {
      /** Format: int32 */
      entry: number;
      shown: string[];
      question: string;
      typed: string | null;
      leftOut: boolean;
    };
    /** @enum {string} */
    LessonMark: 'PERMANENT' | 'DESTROYS' | 'TERMS' | 'OPTIONAL';
    LessonStep: {
      /** Format: int32 */
      entry: number;
      sort: components['schemas']['StepSort'];
      title: string;
      answer: string;
      marks: string[];
      fields: {
        [key: string]: string;
      };
      /** Format: int64 */
      seconds: number;
      certainty: components['schemas']['Certainty'];
      why: string;
    };
    LessonView: {
      complete: boolean;
      identified: boolean;
      wakes: boolean;
      lines: components['schemas']['LessonLine'][];
      steps: components['schemas']['LessonStep'][];
      facts: components['schemas']['LearntFact'][];
      questions: components['schemas']['LearnQuestion'][];
      description: string | null;
      faults: string[];
      agrees: boolean | null;
      differences: string[];
      open: string[];
    };
    /**
     * Format: date
     * @example 2022-03-10
     */
    LocalDate: string;
    MachineLogLine: {
      /** Format: int64 */
      id: number;
      member: string;
      at: components['schemas']['Instant'];
      /** Format: int32 */
      characters: number;
    };
    /** @enum {string} */
    Mark: 'dark' | 'set' | 'work' | 'wait' | 'lit' | 'done' | 'fault';
    /** @enum {string} */
    Meaning: 'ALWAYS' | 'FACT' | 'SAME';
    Measured: {
      kind: components['schemas']['ServiceKind'];
      address: string;
      state: components['schemas']['State'];
      sentence: string;
      detail: {
        [key: string]: string;
      };
      replies: components['schemas']['Reply'][];
      at: components['schemas']['Instant'];
    };
    NameLine: {
      pattern: string;
      /** Format: int32 */
      longest: number;
    };
    NameRecordView: {
      /** Format: int64 */
      id: number;
      zone: string;
      line: string;
      state: string;
      answer: string;
    };
    NamesView: {
      /** Format: int32 */
      planned: number;
      /** Format: int32 */
      made: number;
      /** Format: int32 */
      refused: number;
      /** Format: int32 */
      unknown: number;
      open: components['schemas']['NameRecordView'][];
      zoneLines: string;
      withoutZone: string[];
    };
    NetworkChoice: {
      /** Format: int64 */
      id: number;
      name: string;
      prefix: string;
      /** Format: int32 */
      vlan: number | null;
      purpose: string;
      domain: string;
      nameServers: string[];
      timeServers: string[];
    };
    NetworkStatement: {
      /** Format: int64 */
      id: number;
      name: string;
      prefix: string;
      gateway: string;
      /** Format: int32 */
      vlan: number | null;
      domain: string;
      nameServers: string[];
      timeServers: string[];
      ranges: components['schemas']['RangeText'][];
      purpose: string;
      segment: string;
      /** Format: int32 */
      mtu: number | null;
      permanent: boolean;
      realm: string;
      version: string;
    };
    NetworkTab: {
      /** Format: int64 */
      id: number;
      name: string;
      prefix: string;
      purpose: string;
      /** Format: int32 */
      vlan: number | null;
      permanent: boolean;
      /** Format: int64 */
      free: number;
      /** Format: int64 */
      taken: number;
      /** Format: int64 */
      size: number;
    };
    NewAllocation: {
      allocation: components['schemas']['UUID'];
    };
    NewClaims: {
      pattern?: string;
      lines?: components['schemas']['ClaimWanted'][];
      growth?: components['schemas']['Growth'][];
    };
    NewInvitation: {
      /** Format: int64 */
      id: number;
      login: string;
      token: string;
      endsAt: components['schemas']['Instant'];
    };
    NewMachine: {
      member?: string;
      facts?: {
        [key: string]: string;
      };
      firstAddress?: string;
      why: string;
    };
    NewNoticeTarget: {
      /** Format: int64 */
      id: number;
      secret: string;
    };
    NewPassword: {
      old?: string;
      password?: string;
    };
    NewToken: {
      /** Format: int64 */
      id: number;
      token: string;
      endsAt: components['schemas']['Instant'];
    };
    NewVantage: {
      /** Format: int64 */
      id: number;
      name: string;
      token: string;
    };
    NoticeTargetView: {
      /** Format: int64 */
      id: number;
      sort: string;
      to: string;
      fingerprint: string | null;
      sentAt: components['schemas']['Instant'] | null;
      fault: string;
    };
    NoticeTargetWanted: {
      sort?: string;
      to?: string;
    };
    OpenItemNote: {
      /** Format: int64 */
      unit?: number;
      sort?: string;
      text: string;
      reason: string;
      due: components['schemas']['LocalDate'];
    };
    OpenItemProposal: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      text: string;
      due: components['schemas']['LocalDate'];
    };
    OpenItemView: {
      /** Format: int64 */
      id: number;
      /** Format: int64 */
      unitId: number;
      unit: string;
      sort: string;
      text: string;
      reason: string;
      due: components['schemas']['LocalDate'];
      lead: string;
      late: boolean;
    };
    OverrideReason: {
      reason?: string;
    };
    OwnRequest: {
      title?: string;
    };
    PackageView: {
      kind: string;
      title: string;
      faults: components['schemas']['KindFault'][];
      summary: components['schemas']['KindSummary'] | null;
      /** Format: int32 */
      newest: number | null;
      changes: components['schemas']['KindChange'][];
      recordings: components['schemas']['RecordingTrial'][];
    };
    Part: {
      name: string;
      standing: components['schemas']['Standing'];
      seen: string;
    };
    PasswordChangeStart: {
      units?: number[];
      /** Format: int32 */
      width?: number;
    };
    PasswordChangesView: {
      units: components['schemas']['ChangeableUnit'][];
      lanes: components['schemas']['SetupLane'][];
      hold: string;
    };
    PasswordConfirmation: {
      password?: string;
    };
    PersonChange: {
      name?: string;
      role?: string;
      disabled?: boolean;
    };
    PersonView: {
      /** Format: int64 */
      id: number;
      login: string;
      name: string;
      role: string;
      disabledAt: components['schemas']['Instant'] | null;
      invitedUntil: components['schemas']['Instant'] | null;
      hasPassword: boolean;
      /** Format: int32 */
      sessions: number;
      seenAt: components['schemas']['Instant'] | null;
    };
    PersonWanted: {
      login: string;
      name: string;
      role: string;
    };
    PlacementProposal: {
      lines: components['schemas']['ProposalLine'][];
      growth: components['schemas']['Growth'][];
      unplaced: components['schemas']['Unplaced'][];
      reason: string;
      pattern: string;
      fault: string | null;
    };
    PlacementRequest: {
      addresses?: string[];
    };
    /** @example 10.40.8.0/24 */
    Prefix: string;
    PrepareView: {
      site: components['schemas']['SiteNetworks'];
      choices: components['schemas']['NetworkChoice'][];
      units: components['schemas']['UnitLabel'][];
      kinds: components['schemas']['KindBrief'][];
      rows: components['schemas']['SheetRow'][];
      services: components['schemas']['Measured'][];
      siteResources: components['schemas']['SiteResourceView'][];
      /** Format: int32 */
      knownUnits: number;
    };
    Probed: {
      /** Format: int32 */
      asked: number;
      possible: boolean;
      answering: components['schemas']['UnknownDeviceView'][];
    };
    /** @enum {string} */
    Progress: 'OPEN' | 'SENT' | 'DONE' | 'LEFT_OUT' | 'LATER';
    ProposalLine: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      /** Format: int32 */
      number: number;
      position: string;
      serial: string | null;
      role: string;
      /** Format: int64 */
      networkId: number;
      address: string;
      hostName: string;
      fqdn: string;
      forward: string;
      reverse: string;
      alias: string | null;
    };
    ProveView: {
      endpoints: components['schemas']['EndpointView'][];
      /** Format: int32 */
      checking: number;
      /** Format: int32 */
      proven: number;
      lastAt: components['schemas']['Instant'] | null;
      vantage: string;
      /** Format: int32 */
      minutes: number;
      causes: components['schemas']['SharedCause'][];
      changes: components['schemas']['TraitChangeView'][];
      unknownDevices: components['schemas']['HeardDeviceView'][];
    };
    PublicKeyText: {
      key?: string;
    };
    PublishNote: {
      note?: string;
      despite?: string;
    };
    /** @enum {string} */
    QuestionSort: 'TEXT' | 'COMMANDS' | 'VALUE' | 'MARKS' | 'IDENTITY' | 'CURSOR_KEYS';
    RackCheckView: {
      text: string;
      late: boolean;
      by: string | null;
      at: components['schemas']['Instant'] | null;
    };
    RackChecksView: {
      machines: components['schemas']['RackMachine'][];
      /** Format: int64 */
      done: number;
      /** Format: int64 */
      all: number;
    };
    RackMachine: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      kind: string;
      member: string;
      location: string;
      checks: components['schemas']['RackCheckView'][];
    };
    RangeText: {
      purpose: string;
      run: string;
      note: string;
    };
    ReachAnswer: {
      role: string;
      address: string;
      answers: boolean;
      sentence: string;
      from: string;
    };
    ReachableNetwork: {
      /** Format: int64 */
      id: number;
      name: string;
      prefix: string;
    };
    ReadFile: {
      name: string;
      /** Format: int64 */
      bytes: number;
      sha256: string;
    };
    ReceivedBytes: {
      /** Format: int64 */
      id: number;
      /** Format: int64 */
      received: number;
      /** Format: int64 */
      bytes: number;
    };
    RecordingKept: {
      recording: components['schemas']['KeptRecording'];
      /** Format: int32 */
      blanked: number;
    };
    RecordingOfKind: {
      path: string;
      unit: string;
      member: string;
      at: components['schemas']['Instant'] | null;
      /** Format: int64 */
      dialogue: number | null;
    };
    RecordingTrial: {
      /** Format: int64 */
      id: number | null;
      name: string;
      agrees: boolean;
      faults: string[];
      open: string[];
    };
    RecordingWanted: {
      name?: string;
      /** Format: int64 */
      dialogue?: number;
      file?: components['schemas']['KindTrial'];
    };
    RecordsAgain: {
      units?: number[];
    };
    Remark: {
      text: string;
      grave: boolean;
      more: string;
    };
    ReopenRequest: {
      why: string;
    };
    ReplaceablePart: {
      member: string;
      facts: {
        [key: string]: components['schemas']['BornFact'];
      };
    };
    Reply: {
      request: components['schemas']['Request'];
      about: string;
      accepted: boolean;
      text: string;
    };
    /** @enum {string} */
    Request: 'UPDATE' | 'SENDER' | 'MAIL_DOMAIN';
    RequestChange: {
      requests: components['schemas']['SeenRequest'][];
      state?: components['schemas']['RequestState'];
      person?: string;
      due?: string;
      note?: string;
    };
    /** @enum {string} */
    RequestSort: 'FLOW_OUT' | 'FLOW_IN' | 'FLOW_BETWEEN' | 'RELAY' | 'IMAGE' | 'KEY';
    /** @enum {string} */
    RequestState: 'TO_ASK' | 'ASKED' | 'DONE' | 'NOT_NEEDED';
    RequestView: {
      key: string;
      sort: components['schemas']['RequestSort'] | null;
      title: string;
      /** Format: int32 */
      machines: number;
      examples: string[];
      fallback: string;
      why: string;
      planned: boolean;
      state: components['schemas']['RequestState'];
      person: string;
      due: components['schemas']['LocalDate'] | null;
      late: boolean;
      note: string;
      tested: components['schemas']['TestedAnswer'];
      seen: string;
      changedBy: string | null;
      changedAt: components['schemas']['Instant'] | null;
      /** Format: int32 */
      version: number;
    };
    RequestsView: {
      requests: components['schemas']['RequestView'][];
      /** Format: int64 */
      open: number;
      /** Format: int64 */
      late: number;
    };
    RetireRequest: {
      why: string;
    };
    RetiredUnit: {
      name: string;
      serial: string;
      place: string;
      why: string;
      by: string;
      at: components['schemas']['Instant'];
    };
    RibbonSeat: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      role: string;
      address: string;
      hostName: string;
      fqdn: string;
      position: string;
      ours: boolean;
      proven: boolean;
    };
    RibbonStrip: {
      purpose: string;
      first: string;
      last: string;
      note: string;
    };
    RibbonView: {
      /** Format: int64 */
      networkId: number;
      name: string;
      prefix: string;
      purpose: string;
      gateway: string;
      /** Format: int32 */
      vlan: number | null;
      tabs: components['schemas']['NetworkTab'][];
      strips: components['schemas']['RibbonStrip'][];
      seats: components['schemas']['RibbonSeat'][];
      unknownDevices: components['schemas']['UnknownDeviceView'][];
      cooling: string[];
      density: components['schemas']['Density'][];
      undo: components['schemas']['UndoableAllocation'] | null;
      hears: boolean;
    };
    /** @enum {string} */
    RunState: 'WAITING' | 'RUNNING' | 'DONE' | 'STOPPED' | 'CANCELLED' | 'SET_ASIDE';
    /** @enum {string} */
    Rung: 'ANSWERS' | 'PORT' | 'TLS' | 'SERVICE' | 'IDENTITY' | 'AS_PLANNED' | 'SAFE';
    RungView: {
      title: string;
      standing: components['schemas']['Standing'];
      seen: string;
      parts: components['schemas']['Part'][];
    };
    SearchResult: {
      /** Format: int64 */
      bringUpId: number;
      bringUp: string;
      /** Format: int64 */
      unitId: number;
      name: string;
      text: string;
    };
    SeenRequest: {
      key?: string;
      /** Format: int32 */
      version?: number;
    };
    SeenUnit: {
      /** Format: int64 */
      unit?: number;
      face?: string;
    };
    /** @enum {string} */
    ServiceKind: 'GATEWAY' | 'NAME' | 'TIME' | 'RELAY' | 'PROXY' | 'DIRECTORY';
    ServicePortAnswer: {
      from: string;
      state: components['schemas']['ServicePortState'];
      sentence: string;
    };
    /** @enum {string} */
    ServicePortState: 'ANSWERS' | 'SILENT' | 'OTHER_SUBNET' | 'NOT_TRIED';
    SessionView: {
      /** Format: int64 */
      id: number;
      agent: string;
      source: string;
      createdAt: components['schemas']['Instant'];
      seenAt: components['schemas']['Instant'];
      endsAt: components['schemas']['Instant'];
      own: boolean;
    };
    SetupLane: {
      /** Format: int64 */
      runId: number;
      /** Format: int64 */
      unitId: number;
      name: string;
      position: string;
      address: string;
      state: components['schemas']['RunState'];
      step: string;
      /** Format: int32 */
      stepNumber: number;
      /** Format: int32 */
      steps: number;
      note: string;
      advice: string;
      startedAt: components['schemas']['Instant'] | null;
      stepAt: components['schemas']['Instant'] | null;
      endedAt: components['schemas']['Instant'] | null;
      cancelling: boolean;
    };
    SetupStart: {
      /** Format: int32 */
      width?: number;
      reason?: string;
    };
    SetupStepView: {
      step: string;
      at: components['schemas']['Instant'];
      note: string;
      holds: boolean;
    };
    SharedCause: {
      title: string;
      sentence: string;
      press: string;
      endpoints: string[];
      records: boolean;
    };
    SheetField: {
      name?: string;
      value?: string;
    };
    SheetRow: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      kind: string;
      /** Format: int32 */
      kindVersion: number;
      member: string;
      first: boolean;
      cells: {
        [key: string]: components['schemas']['SheetValue'];
      };
    };
    SheetValue: {
      value: string;
      source: string;
    };
    ShownPassword: {
      text: string;
    };
    SignIn: {
      login?: string;
      password?: string;
    };
    SignRequest: {
      units?: components['schemas']['SeenUnit'][];
    };
    SignStanding: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      kind: string;
      state: components['schemas']['SignState'];
      why: string;
      fault: boolean;
      face: string;
      digest: string | null;
      signedBy: string;
      signedAt: components['schemas']['Instant'] | null;
      provenAt: components['schemas']['Instant'] | null;
    };
    /** @enum {string} */
    SignState: 'SIGNED' | 'READY' | 'BLOCKED';
    SignedInView: {
      login: string;
      name: string;
      role: string;
      vantage: string;
    };
    SignedUnit: {
      /** Format: int64 */
      unit: number;
      name: string;
      digest: string;
      /** Format: int64 */
      link: number;
    };
    SigningStep: {
      request: string;
      way: components['schemas']['CertificateWay'];
      chain: string | null;
    };
    SiteNetworks: {
      network: components['schemas']['NetworkStatement'] | null;
      networks: components['schemas']['NetworkStatement'][];
      findings: components['schemas']['Finding'][];
      /** Format: int64 */
      toPlace: number;
      /** Format: int64 */
      free: number;
      /** Format: int64 */
      undoableImport: number | null;
    };
    SiteResourceSortView: {
      sort: string;
      title: string;
      example: string;
      fields: components['schemas']['AskedField'][];
    };
    SiteResourceStatement: {
      /** Format: int64 */
      id?: number;
      sort?: string;
      name: string;
      values?: {
        [key: string]: string;
      };
      version?: string;
    };
    SiteResourceView: {
      /** Format: int64 */
      id: number;
      sort: string;
      name: string;
      values: {
        [key: string]: string;
      };
      version: string;
    };
    /** @enum {string} */
    Sort: 'ADDED' | 'REMOVED' | 'CHANGED' | 'MOVED';
    /** @enum {string} */
    Stage: 'prepare' | 'allocate' | 'configure' | 'prove' | 'handover';
    /** @enum {string} */
    Standing: 'HOLDS' | 'BROKEN' | 'NOT_REACHED' | 'NOT_MEASURED';
    StartableUnit: {
      /** Format: int64 */
      unitId: number;
      name: string;
      kindTitle: string;
      position: string;
      alone: boolean;
    };
    /** @enum {string} */
    State: 'FINE' | 'ODD' | 'LIES' | 'SILENT';
    StepReached: {
      title: string;
      progress: components['schemas']['Progress'];
    };
    /** @enum {string} */
    StepSort: 'ANSWERS' | 'COMMANDS' | 'COMPARES' | 'WAITS';
    StepTick: {
      /** Format: int32 */
      place?: number;
      done?: boolean;
    };
    /** @enum {string} */
    TestedAnswer: 'YES' | 'NO' | 'NOT_MEASURED';
    Tick: {
      /** Format: int64 */
      unit?: number;
      member?: string;
      check?: string;
      done?: boolean;
    };
    TokenView: {
      /** Format: int64 */
      id: number;
      name: string;
      role: string;
      endsAt: components['schemas']['Instant'];
      usedAt: components['schemas']['Instant'] | null;
    };
    TokenWanted: {
      name: string;
      role?: string;
      /** Format: int32 */
      days?: number;
    };
    TraitChangeView: {
      /** Format: int64 */
      unitId: number;
      /** Format: int64 */
      claimId: number;
      role: string;
      name: string;
      what: string;
      before: string;
      now: string;
      since: components['schemas']['Instant'];
      acceptable: boolean;
      fault: boolean;
      reason: string;
      by: string;
    };
    TraitDecision: {
      what?: string;
      now?: string;
      accept?: boolean;
      reason?: string;
    };
    TriedMoment: {
      /** Format: double */
      at: number;
      /** Format: int32 */
      step: number | null;
      event: components['schemas']['Event'];
      text: string;
      screen: string[];
    };
    /** Format: uuid */
    UUID: string;
    UndoableAllocation: {
      allocation: components['schemas']['UUID'];
      /** Format: int32 */
      count: number;
    };
    UnitLabel: {
      /** Format: int64 */
      id: number;
      /** Format: int32 */
      number: number;
      name: string;
      kind: string;
      /** Format: int32 */
      kindVersion: number;
      /** Format: int32 */
      members: number;
      position: string;
      serial: string | null;
      mac: string | null;
      model: string;
      firstAddress: string | null;
      known: boolean;
    };
    UnitName: {
      name?: string;
    };
    UnitOfKind: {
      /** Format: int64 */
      id: number;
      name: string;
      bringUp: string;
      members: string[];
    };
    UnknownDeviceView: {
      address: string;
      mac: string | null;
      sentence: string;
      controller: string | null;
      unit: string | null;
      firstHeard: components['schemas']['Instant'] | null;
      lastHeard: components['schemas']['Instant'] | null;
    };
    Unplaced: {
      /** Format: int64 */
      unitId: number;
      unit: string;
      why: string;
    };
    VantageNetworks: {
      networks?: number[];
    };
    VantageView: {
      /** Format: int64 */
      id: number;
      name: string;
      madeAt: components['schemas']['Instant'];
      seenAt: components['schemas']['Instant'] | null;
      linked: boolean;
      otherVersion: boolean;
      networks: {
        [key: string]: string;
      };
    };
    VantageWanted: {
      name?: string;
    };
  };
  responses: never;
  parameters: never;
  requestBodies: never;
  headers: never;
  pathItems: never;
}
export type $defs = Record<string, never>;
export type operations = Record<string, never>;
