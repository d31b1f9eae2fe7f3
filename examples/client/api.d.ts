// Generated from /api/v1/openapi.json by generate.ts.
export interface paths {
    "/api/v1/me": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody?: never;
            responses: {
                /** @description Default Response */
                200: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            person: {
                                /** Format: uuid */
                                id: string;
                                name: string;
                                /** @enum {string} */
                                role: "owner" | "editor" | "reader";
                            } | null;
                            by: ("visitor" | "session") | null;
                            unowned: boolean;
                        };
                    };
                };
            };
        };
        put?: never;
        post?: never;
        delete?: never;
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
    "/api/v1/session": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get?: never;
        put?: never;
        post: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody: {
                content: {
                    "application/json": {
                        name: string;
                        password: string;
                    };
                };
            };
            responses: {
                /** @description Default Response */
                201: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            person: {
                                /** Format: uuid */
                                id: string;
                                name: string;
                                /** @enum {string} */
                                role: "owner" | "editor" | "reader";
                            } | null;
                            by: ("visitor" | "session") | null;
                            unowned: boolean;
                        };
                    };
                };
            };
        };
        delete: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody?: never;
            responses: {
                /** @description Default Response */
                204: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content?: never;
                };
            };
        };
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
    "/api/v1/models": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get: {
            parameters: {
                query?: {
                    search?: string;
                    kind?: "canister" | "hang-on-back" | "internal" | "motor-sponge" | "air-sponge" | "air-box" | "fluidised" | "sump";
                    sort?: "name" | "updated" | "rated-flow" | "claim";
                    stands?: "split" | "agreed";
                    missing?: "rated-flow" | "tank-max" | "max-head" | "hookup" | "empty-flow" | "installed-flow" | "head-series" | "fill" | "media-mass";
                    cursor?: string;
                    limit?: number;
                };
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody?: never;
            responses: {
                /** @description Default Response */
                200: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            items: {
                                model: {
                                    /** Format: uuid */
                                    id: string;
                                    version: number;
                                    createdAt: string;
                                    updatedAt: string;
                                    deletedAt: string | null;
                                    maker: string;
                                    name: string;
                                    /** @enum {string} */
                                    kind: "canister" | "hang-on-back" | "internal" | "motor-sponge" | "air-sponge" | "air-box" | "fluidised" | "sump";
                                    mainsFrequency: 50 | 60;
                                    primedBy: ("fill" | "button" | "levers") | null;
                                    houseRuleId: string | null;
                                    kinId: string | null;
                                    /** @enum {string} */
                                    kinship: "sibling" | "generation";
                                    readonly offers: {
                                        /** @enum {string} */
                                        kind: "sale" | "second-hand";
                                        minor: number;
                                        currency: string;
                                        on: string | null;
                                    }[];
                                    readonly errata: {
                                        id: string;
                                        /** Format: date */
                                        on: string;
                                        about: string;
                                        text: string;
                                    }[];
                                    note: string;
                                };
                                ratedFlow: {
                                    id: string;
                                    label: string;
                                    value: number;
                                    /** @enum {string} */
                                    dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                    /** @enum {string} */
                                    provenance: "printed" | "measured" | "computed" | "rule";
                                    uncertainty?: number;
                                    interval?: [
                                        number,
                                        number
                                    ];
                                    shared?: {
                                        what: string;
                                        relative?: number;
                                        half?: number;
                                    }[];
                                    conditions?: string[];
                                    formula?: string;
                                    unit?: string;
                                    working?: {
                                        symbol: string;
                                        label: string;
                                        value: number;
                                        /** @enum {string} */
                                        dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                        unit?: string;
                                        /** @enum {string} */
                                        provenance?: "printed" | "measured" | "computed" | "rule";
                                    }[];
                                    source?: string;
                                    when?: string;
                                    assumed?: string;
                                } | null;
                                flow: {
                                    id: string;
                                    label: string;
                                    value: number;
                                    /** @enum {string} */
                                    dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                    /** @enum {string} */
                                    provenance: "printed" | "measured" | "computed" | "rule";
                                    uncertainty?: number;
                                    interval?: [
                                        number,
                                        number
                                    ];
                                    shared?: {
                                        what: string;
                                        relative?: number;
                                        half?: number;
                                    }[];
                                    conditions?: string[];
                                    formula?: string;
                                    unit?: string;
                                    working?: {
                                        symbol: string;
                                        label: string;
                                        value: number;
                                        /** @enum {string} */
                                        dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                        unit?: string;
                                        /** @enum {string} */
                                        provenance?: "printed" | "measured" | "computed" | "rule";
                                    }[];
                                    source?: string;
                                    when?: string;
                                    assumed?: string;
                                } | null;
                                /** @enum {string} */
                                basis: "measured" | "carried" | "computed-fit" | "computed-label" | "supposed-run" | "supposed-fit" | "supposed-label" | "measured-empty" | "rule" | "none";
                                supportedMax: {
                                    id: string;
                                    label: string;
                                    value: number;
                                    /** @enum {string} */
                                    dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                    /** @enum {string} */
                                    provenance: "printed" | "measured" | "computed" | "rule";
                                    uncertainty?: number;
                                    interval?: [
                                        number,
                                        number
                                    ];
                                    shared?: {
                                        what: string;
                                        relative?: number;
                                        half?: number;
                                    }[];
                                    conditions?: string[];
                                    formula?: string;
                                    unit?: string;
                                    working?: {
                                        symbol: string;
                                        label: string;
                                        value: number;
                                        /** @enum {string} */
                                        dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                        unit?: string;
                                        /** @enum {string} */
                                        provenance?: "printed" | "measured" | "computed" | "rule";
                                    }[];
                                    source?: string;
                                    when?: string;
                                    assumed?: string;
                                } | null;
                                claimedMax: {
                                    id: string;
                                    label: string;
                                    value: number;
                                    /** @enum {string} */
                                    dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                    /** @enum {string} */
                                    provenance: "printed" | "measured" | "computed" | "rule";
                                    uncertainty?: number;
                                    interval?: [
                                        number,
                                        number
                                    ];
                                    shared?: {
                                        what: string;
                                        relative?: number;
                                        half?: number;
                                    }[];
                                    conditions?: string[];
                                    formula?: string;
                                    unit?: string;
                                    working?: {
                                        symbol: string;
                                        label: string;
                                        value: number;
                                        /** @enum {string} */
                                        dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                        unit?: string;
                                        /** @enum {string} */
                                        provenance?: "printed" | "measured" | "computed" | "rule";
                                    }[];
                                    source?: string;
                                    when?: string;
                                    assumed?: string;
                                } | null;
                                overclaim: {
                                    id: string;
                                    label: string;
                                    value: number;
                                    /** @enum {string} */
                                    dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                    /** @enum {string} */
                                    provenance: "printed" | "measured" | "computed" | "rule";
                                    uncertainty?: number;
                                    interval?: [
                                        number,
                                        number
                                    ];
                                    shared?: {
                                        what: string;
                                        relative?: number;
                                        half?: number;
                                    }[];
                                    conditions?: string[];
                                    formula?: string;
                                    unit?: string;
                                    working?: {
                                        symbol: string;
                                        label: string;
                                        value: number;
                                        /** @enum {string} */
                                        dimension: "length" | "head" | "volume" | "flow" | "mass" | "concentration" | "feed" | "feeding" | "area" | "power" | "time" | "temperature" | "frequency" | "velocity" | "sound" | "voltage" | "ratio";
                                        unit?: string;
                                        /** @enum {string} */
                                        provenance?: "printed" | "measured" | "computed" | "rule";
                                    }[];
                                    source?: string;
                                    when?: string;
                                    assumed?: string;
                                } | null;
                                /** @enum {string} */
                                level: "open" | "holds" | "stretched" | "overclaimed" | "far-overclaimed";
                                borderline: boolean;
                                split: string | null;
                                claimsDone: number;
                                benchDone: number;
                                problem: string | null;
                                next: string | null;
                                /** @default [] */
                                missing: ("rated-flow" | "tank-max" | "max-head" | "hookup" | "empty-flow" | "installed-flow" | "head-series" | "fill" | "media-mass")[];
                                old: boolean;
                            }[];
                            next: string | null;
                            total: number;
                        };
                    };
                };
            };
        };
        put?: never;
        post: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody: {
                content: {
                    "application/json": {
                        /** Format: uuid */
                        id: string;
                        maker: string;
                        name: string;
                        /** @enum {string} */
                        kind: "canister" | "hang-on-back" | "internal" | "motor-sponge" | "air-sponge" | "air-box" | "fluidised" | "sump";
                        /** @default 50 */
                        mainsFrequency?: 50 | 60;
                        /** @default null */
                        primedBy?: ("fill" | "button" | "levers") | null;
                        /** @default null */
                        houseRuleId?: string | null;
                        /** @default null */
                        kinId?: string | null;
                        /**
                         * @default sibling
                         * @enum {string}
                         */
                        kinship?: "sibling" | "generation";
                        /** @default [] */
                        readonly offers?: {
                            /** @enum {string} */
                            kind: "sale" | "second-hand";
                            minor: number;
                            currency: string;
                            on: string | null;
                        }[];
                        /** @default [] */
                        readonly errata?: {
                            id: string;
                            /** Format: date */
                            on: string;
                            about: string;
                            text: string;
                        }[];
                        /** @default  */
                        note?: string;
                    };
                };
            };
            responses: {
                /** @description Default Response */
                201: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            /** Format: uuid */
                            id: string;
                            version: number;
                            createdAt: string;
                            updatedAt: string;
                            deletedAt: string | null;
                            maker: string;
                            name: string;
                            /** @enum {string} */
                            kind: "canister" | "hang-on-back" | "internal" | "motor-sponge" | "air-sponge" | "air-box" | "fluidised" | "sump";
                            mainsFrequency: 50 | 60;
                            primedBy: ("fill" | "button" | "levers") | null;
                            houseRuleId: string | null;
                            kinId: string | null;
                            /** @enum {string} */
                            kinship: "sibling" | "generation";
                            readonly offers: {
                                /** @enum {string} */
                                kind: "sale" | "second-hand";
                                minor: number;
                                currency: string;
                                on: string | null;
                            }[];
                            readonly errata: {
                                id: string;
                                /** Format: date */
                                on: string;
                                about: string;
                                text: string;
                            }[];
                            note: string;
                        };
                    };
                };
            };
        };
        delete?: never;
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
    "/api/v1/models/{id}/dossier": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get: {
            parameters: {
                query?: never;
                header?: never;
                path: {
                    id: string;
                };
                cookie?: never;
            };
            requestBody?: never;
            responses: {
                /** @description Default Response */
                200: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            model: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                maker: string;
                                name: string;
                                /** @enum {string} */
                                kind: "canister" | "hang-on-back" | "internal" | "motor-sponge" | "air-sponge" | "air-box" | "fluidised" | "sump";
                                mainsFrequency: 50 | 60;
                                primedBy: ("fill" | "button" | "levers") | null;
                                houseRuleId: string | null;
                                kinId: string | null;
                                /** @enum {string} */
                                kinship: "sibling" | "generation";
                                readonly offers: {
                                    /** @enum {string} */
                                    kind: "sale" | "second-hand";
                                    minor: number;
                                    currency: string;
                                    on: string | null;
                                }[];
                                readonly errata: {
                                    id: string;
                                    /** Format: date */
                                    on: string;
                                    about: string;
                                    text: string;
                                }[];
                                note: string;
                            };
                            claims: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                /** @enum {string} */
                                quantity: "rated-flow" | "max-head" | "power" | "tank-min" | "tank-max" | "media-volume" | "noise" | "contents" | "guarantee" | "price";
                                value: number | null;
                                words: string | null;
                                amountMinor: number | null;
                                currency: string | null;
                                pricedOn: string | null;
                                qualifier: string;
                                mainsFrequency: (50 | 60) | null;
                                printedOn: string;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            specimens: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                label: string;
                                obtained: ("bought" | "loaned" | "given" | "second-hand") | null;
                                obtainedOn: string | null;
                                /** @enum {string} */
                                state: "new" | "used";
                                monthsInUse: number | null;
                                serial: string;
                                condition: string;
                                checks: {
                                    [key: string]: boolean;
                                };
                                mediaMass: number | null;
                                /** @enum {string} */
                                mediaMassBy: "scale" | "estimate";
                                disclosure: {
                                    paid: boolean | null;
                                    signed: boolean | null;
                                    affiliate: boolean | null;
                                    free: boolean | null;
                                    representative: boolean | null;
                                    previewed: boolean | null;
                                };
                                note: string;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            hookups: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                name: string;
                                outletAboveWater: number;
                                sourceBelowWater: number;
                                bodyBelowWater: number;
                                readonly segments: ({
                                    /** @enum {string} */
                                    kind: "hose";
                                    id: string;
                                    label: string;
                                    length: number;
                                    diameter: number;
                                    roughness: number;
                                    clear?: boolean;
                                } | {
                                    /** @enum {string} */
                                    kind: "fitting";
                                    id: string;
                                    label: string;
                                    lossCoefficient: number;
                                    diameter: number;
                                    count: number;
                                    catalogue?: ("entrance-strainer" | "entrance-open" | "entrance-sponge" | "bend-90" | "bend-180" | "sweep-90" | "tap" | "barb" | "lip" | "nozzle" | "exit-open" | "measured") | null;
                                } | {
                                    /** @enum {string} */
                                    kind: "spray-bar";
                                    id: string;
                                    label: string;
                                    holes: number;
                                    holeDiameter: number;
                                    dischargeCoefficient: number;
                                })[];
                                fitted: {
                                    second?: {
                                        label: string;
                                        /** @enum {string} */
                                        arrangement: "series" | "beside";
                                        running: boolean;
                                        shutOffHead: number;
                                        maxFlow: number;
                                        exponent: number;
                                        lossCoefficient: number;
                                    };
                                    lamp?: {
                                        output: number;
                                        lampLength: number;
                                        sleeveRadius: number;
                                        chamberRadius: number;
                                        ageing: number;
                                        sleeve: number;
                                        transmittance: number;
                                        price?: {
                                            minor: number;
                                            currency: string;
                                            on?: string | null;
                                        };
                                    };
                                    heater?: {
                                        watts: number;
                                        length?: number;
                                    };
                                    outlets?: {
                                        id: string;
                                        name: string;
                                        /** @enum {string} */
                                        kind: "nozzle" | "spray-bar" | "lip" | "airlift";
                                        /** @enum {string} */
                                        aim: "along" | "glass" | "surface";
                                        depth: number;
                                        diameter: number;
                                        holes: number;
                                        spacing: number;
                                        width: number;
                                    }[];
                                    inlet?: {
                                        openArea: number;
                                        sponge: boolean;
                                    };
                                };
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            bodies: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                outerWidth: number;
                                outerDepth: number;
                                outerHeight: number;
                                overhang: number | null;
                                heightWithHoses: number | null;
                                hookOpening: number | null;
                                intakeReach: number | null;
                                waterFill: number | null;
                                emptyMass: number | null;
                                fullMass: number | null;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            chambers: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                position: number;
                                name: string;
                                /** @enum {string} */
                                role: "pre-filter" | "tray" | "cartridge-slot" | "compartment" | "pump-well" | "centre-pipe" | "side-channel" | "settling-void" | "head-space" | "lip";
                                /** @enum {string} */
                                shape: "box" | "cylinder" | "annulus" | "cone" | "pyramid" | "wedge" | "water-fill";
                                width: number;
                                depth: number;
                                height: number;
                                diameter: number;
                                innerDiameter: number;
                                topWidth: number;
                                topDepth: number;
                                topDiameter: number;
                                lowHeight: number;
                                volume: number;
                                x: number;
                                y: number;
                                usableHeight: number | null;
                                rim: number | null;
                                perforated: number | null;
                                displaced: number | null;
                                /** @enum {string} */
                                use: "biological" | "mechanical" | "chemical" | "void" | "channel" | "machinery" | "wasted";
                                way: ("up" | "down" | "across" | "inward") | null;
                                beside: boolean | null;
                                overflowSill: number | null;
                                wallGap: number | null;
                                measured: boolean;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            fills: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                name: string;
                                /** @enum {string} */
                                basis: "as-shipped" | "proposed" | "variant";
                                note: string;
                                readonly layers: {
                                    id: string;
                                    /** Format: uuid */
                                    chamberId: string;
                                    /** Format: uuid */
                                    mediumId: string;
                                    /** @enum {string} */
                                    measure: "height" | "volume" | "mass" | "packs";
                                    amount: number;
                                    bagged: boolean;
                                    gap: number;
                                    crossed: boolean;
                                    sealed: boolean;
                                    fouled: number;
                                }[];
                            }[];
                            trials: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                /** @enum {string} */
                                kind: "vessel" | "weighed" | "meter" | "read" | "shut-off" | "meter-check" | "power" | "noise" | "dye" | "holding" | "prime" | "air" | "water-test" | "clarity";
                                specimenId: string | null;
                                hookupId: string | null;
                                /** @enum {string} */
                                state: "empty" | "as-shipped" | "proposed" | "dirty";
                                lift: number;
                                waterTemperature: number;
                                salinity: number;
                                mainsFrequency: 50 | 60;
                                vesselVolume: number;
                                vesselUncertainty: number;
                                clockResolution: number;
                                reaction: number;
                                daysInUse: number | null;
                                valve: number;
                                outlet: string;
                                mainsVoltage: number | null;
                                setup: {
                                    scale?: number;
                                    kFactor?: number;
                                    kUncertainty?: number;
                                    relative?: number;
                                    pricePerKwhMinor?: number;
                                    levelUncertainty?: number;
                                    distance?: number;
                                    position?: string;
                                    points?: string[];
                                    unit?: string;
                                    volume?: number;
                                    load?: string;
                                    riserDiameter?: number;
                                    submergence?: number;
                                    stone?: string;
                                    /** @enum {string} */
                                    readBy?: "card" | "meter";
                                    /** @enum {string} */
                                    countedAs?: "ion" | "nitrogen";
                                    stepAmmonia?: number;
                                    stepNitrite?: number;
                                    stepNitrate?: number;
                                    stepPh?: number;
                                    stepTemperature?: number;
                                    conditioner?: string;
                                    spot?: string;
                                    currency?: string;
                                    airLine?: {
                                        shutOffHead: number;
                                        maxFlow: number;
                                        outlets: {
                                            label: string;
                                            depth: number;
                                            stoneHead: number;
                                            open: number;
                                        }[];
                                    };
                                };
                                fillId: string | null;
                                outReason: string | null;
                                note: string;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            readings: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                trialId: string;
                                /** @enum {string} */
                                kind: "vessel" | "weighed" | "meter" | "read" | "shut-off" | "meter-check" | "power" | "noise" | "dye" | "holding" | "prime" | "air" | "water-test" | "clarity";
                                /** Format: date-time */
                                takenAt: string;
                                volume: number | null;
                                seconds: number | null;
                                value: number | null;
                                series: string;
                                outcome: string;
                                note: string;
                                source: string;
                            }[];
                            logs: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                trialId: string;
                                /** Format: date-time */
                                startedAt: string;
                                source: string;
                                series: string;
                                note: string;
                                n: number;
                                span: number;
                                mean: number;
                                deviation: number;
                                energyMean: number;
                                min: number;
                                max: number;
                            }[];
                            contents: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                position: number;
                                name: string;
                                /** @enum {string} */
                                found: "present" | "missing" | "extra" | "damaged";
                                note: string;
                            }[];
                            parts: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                position: number;
                                name: string;
                                job: string;
                                /** @enum {string} */
                                material: "hard plastic" | "soft plastic" | "rubber" | "silicone" | "ceramic" | "steel 304" | "steel 316" | "other steel" | "glass" | "foam" | "fibre" | "sintered" | "magnet" | "other";
                                /** @enum {string} */
                                fixing: "none" | "clip" | "quarter turn" | "screw" | "press" | "thread" | "suction cup";
                                moves: number;
                                seconds: number;
                                after: string[] | null;
                                cleaning: number | null;
                                back: number | null;
                                reach: ("pre-filter" | "pad" | "media" | "impeller") | null;
                                checklist: string;
                                findings: string[];
                                sparePriceMinor: number | null;
                                spareCurrency: string | null;
                                sparePricedOn: string | null;
                                wetMass: number | null;
                                note: string;
                                goesIn: string;
                                mark: string;
                                canGoWrong: boolean | null;
                                follows: string;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            visits: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                /** Format: uuid */
                                modelId: string;
                                tankId: string | null;
                                specimenId: string | null;
                                fillId: string | null;
                                /** Format: date */
                                on: string;
                                /** @enum {string} */
                                stage: "set-up" | "visit";
                                seeping: ("taps" | "head" | "hoses" | "lid" | "body")[] | null;
                                readonly runsBefore: {
                                    volume: number;
                                    seconds: number;
                                }[];
                                noise: number | null;
                                watts: number | null;
                                holding: ("all" | "some" | "none") | null;
                                dirt: {
                                    [key: string]: "clean" | "light" | "half" | "blind";
                                };
                                parts: {
                                    [key: string]: string[];
                                };
                                hoses: ("clean" | "slime" | "half-closed") | null;
                                ammonia: number | null;
                                nitrite: number | null;
                                nitrate: number | null;
                                binder: boolean;
                                clarity: ("clear" | "hazy" | "cloudy") | null;
                                readonly cleaned: {
                                    what: string;
                                    /** @enum {string} */
                                    how: "tank-water" | "dechlorinated" | "tap" | "wiped" | "renewed";
                                }[];
                                readonly failed: {
                                    part: string;
                                    how: string;
                                }[];
                                minutes: number | null;
                                readonly runsAfter: {
                                    volume: number;
                                    seconds: number;
                                }[];
                                note: string;
                                typed: {
                                    [key: string]: string;
                                };
                            }[];
                            photos: {
                                /** Format: uuid */
                                id: string;
                                version: number;
                                createdAt: string;
                                updatedAt: string;
                                deletedAt: string | null;
                                partId: string | null;
                                trialId: string | null;
                                visitId: string | null;
                                caption: string;
                                width: number;
                                height: number;
                                bytes: number;
                            }[];
                            unreadable?: {
                                /** @enum {string} */
                                collection: "claims" | "specimens" | "hookups" | "bodies" | "chambers" | "fills" | "trials" | "readings" | "logs" | "contents" | "parts" | "visits" | "photos";
                                one: string;
                                id: string;
                                version: number;
                                field: string;
                                message: string;
                            }[];
                        };
                    };
                };
            };
        };
        put?: never;
        post?: never;
        delete?: never;
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
    "/api/v1/label-bias": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody?: never;
            responses: {
                /** @description Default Response */
                200: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            median: number;
                            low: number;
                            high: number;
                            n: number;
                            words: string;
                        };
                    };
                };
            };
        };
        put?: never;
        post?: never;
        delete?: never;
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
    "/api/v1/calc/flow-runs": {
        parameters: {
            query?: never;
            header?: never;
            path?: never;
            cookie?: never;
        };
        get?: never;
        put?: never;
        post: {
            parameters: {
                query?: never;
                header?: never;
                path?: never;
                cookie?: never;
            };
            requestBody: {
                content: {
                    "application/json": {
                        runs: {
                            volume: number;
                            seconds: number;
                        }[];
                        method?: {
                            vessel: number;
                            resolution: number;
                            reaction: number;
                        };
                        target?: number;
                    };
                };
            };
            responses: {
                /** @description Default Response */
                200: {
                    headers: {
                        [name: string]: unknown;
                    };
                    content: {
                        "application/json": {
                            [key: string]: unknown;
                        };
                    };
                };
            };
        };
        delete?: never;
        options?: never;
        head?: never;
        patch?: never;
        trace?: never;
    };
}
export type webhooks = Record<string, never>;
export interface components {
    schemas: never;
    responses: never;
    parameters: never;
    requestBodies: never;
    headers: never;
    pathItems: never;
}
export type $defs = Record<string, never>;
export type operations = Record<string, never>;
