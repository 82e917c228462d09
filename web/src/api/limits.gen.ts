// Generated from api/openapi.yaml by 'make generate'; do not edit.

export const limits = {
  "Attacks": {
    "cycle": {
      "maxItems": 64
    }
  },
  "BentTaps": {
    "finger": {
      "max": 4,
      "min": 1
    },
    "taps": {
      "maxItems": 16
    }
  },
  "Block": {
    "items": {
      "maxItems": 128
    },
    "name": {
      "maxLength": 120
    }
  },
  "ChordShape": {
    "leaper": {
      "max": 4,
      "min": 1
    },
    "leaps": {
      "maxItems": 32
    },
    "shape": {
      "maxItems": 6
    }
  },
  "Diagonal": {
    "orders": {
      "maxItems": 64
    }
  },
  "Drill": {
    "name": {
      "maxLength": 120
    },
    "then": {
      "maxItems": 64
    },
    "title": {
      "maxLength": 120
    }
  },
  "DrillPart": {
    "title": {
      "maxLength": 120
    }
  },
  "FingerPerFret": {
    "orders": {
      "maxItems": 64
    }
  },
  "Fingering": {
    "bendHeld": {
      "max": 3,
      "min": 0
    },
    "own": {
      "maxItems": 256
    },
    "tapFinger": {
      "max": 4,
      "min": 1
    }
  },
  "Fixed": {
    "fret": {
      "max": 36,
      "min": 0
    },
    "string": {
      "max": 9,
      "min": 1
    }
  },
  "FreeCell": {
    "notes": {
      "maxItems": 512
    }
  },
  "FreeNote": {
    "finger": {
      "max": 4,
      "min": 0
    },
    "fret": {
      "max": 36,
      "min": 0
    },
    "string": {
      "max": 9,
      "min": 1
    }
  },
  "Gate": {
    "bentPercent": {
      "max": 100,
      "min": 0
    },
    "gapsPercent": {
      "max": 100,
      "min": 0
    },
    "levelSpreadDb": {
      "max": 20,
      "min": 0
    },
    "passesInARow": {
      "max": 20,
      "min": 1
    },
    "rightPercent": {
      "max": 100,
      "min": 50
    },
    "ringingPercent": {
      "max": 100,
      "min": 0
    },
    "spreadPercent": {
      "max": 50,
      "min": 0
    }
  },
  "HeldFinger": {
    "finger": {
      "max": 4,
      "min": 0
    },
    "fret": {
      "max": 36,
      "min": -36
    }
  },
  "Key": {
    "intervals": {
      "maxItems": 12
    },
    "root": {
      "max": 11,
      "min": 0
    },
    "scale": {
      "maxLength": 60
    }
  },
  "Ladder": {
    "doublings": {
      "max": 3,
      "min": 0
    },
    "list": {
      "maxItems": 1000
    },
    "startBpm": {
      "max": 320,
      "min": 20
    },
    "stepBpm": {
      "max": 60,
      "min": 0
    },
    "stepPercent": {
      "max": 100,
      "min": 0
    },
    "targetBpm": {
      "max": 320,
      "min": 20
    }
  },
  "Leap": {
    "fret": {
      "max": 36,
      "min": -36
    },
    "string": {
      "max": 5,
      "min": 0
    }
  },
  "MixedRun": {
    "picked": {
      "max": 4,
      "min": 0
    },
    "slurred": {
      "max": 4,
      "min": 0
    }
  },
  "OneString": {
    "steps": {
      "maxItems": 16
    }
  },
  "OpenStrings": {
    "fingers": {
      "maxItems": 32
    }
  },
  "Path": {
    "groups": {
      "maxItems": 64
    },
    "position": {
      "max": 36,
      "min": 1
    },
    "strings": {
      "maxItems": 64
    }
  },
  "PlacedFinger": {
    "finger": {
      "max": 4,
      "min": 1
    },
    "fret": {
      "max": 36,
      "min": 0
    },
    "string": {
      "max": 9,
      "min": 1
    }
  },
  "Rhythm": {
    "beatsPerBar": {
      "max": 16,
      "min": 1
    },
    "close": {
      "max": 64,
      "min": -64
    },
    "notesPerBeat": {
      "max": 8,
      "min": 1
    },
    "passes": {
      "max": 64,
      "min": 1
    },
    "swing": {
      "max": 0.75,
      "min": 0.5
    }
  },
  "Rung": {
    "bpm": {
      "max": 320,
      "min": 20
    },
    "notesPerBeat": {
      "max": 8,
      "min": 1
    }
  },
  "ScaleRun": {
    "perString": {
      "maxItems": 9
    }
  },
  "Sequence": {
    "advance": {
      "max": 12,
      "min": 0
    },
    "length": {
      "max": 12,
      "min": 0
    }
  },
  "Shift": {
    "by": {
      "max": 36,
      "min": -36
    },
    "count": {
      "max": 36,
      "min": 0
    }
  },
  "SkipArpeggio": {
    "extra": {
      "max": 3,
      "min": 0
    },
    "perString": {
      "max": 4,
      "min": 1
    }
  },
  "SlurCombinations": {
    "combinations": {
      "maxItems": 64
    }
  },
  "Stay": {
    "count": {
      "max": 240,
      "min": 1
    }
  },
  "StringPair": {
    "orders": {
      "maxItems": 64
    }
  },
  "Tapping": {
    "low": {
      "max": 36,
      "min": -36
    },
    "middle": {
      "max": 36,
      "min": -36
    },
    "tapAt": {
      "max": 36,
      "min": -36
    }
  },
  "Triad": {
    "voices": {
      "maxItems": 4
    }
  },
  "TwoHands": {
    "fretted": {
      "maxItems": 6
    },
    "moves": {
      "maxItems": 64
    },
    "tapped": {
      "maxItems": 6
    }
  },
  "TwoMove": {
    "fretting": {
      "max": 36,
      "min": -36
    },
    "tapping": {
      "max": 36,
      "min": -36
    }
  },
  "TwoStringShape": {
    "higher": {
      "maxItems": 4
    },
    "lower": {
      "maxItems": 4
    }
  }
} as const
