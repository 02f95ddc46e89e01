package document

import "encoding/json"

// EncodeWays writes in what the ways of teachers differ, by the id of the teacher.
func EncodeWays(ways map[string]json.RawMessage) ([]byte, error) { return json.Marshal(ways) }

// DecodeWays reads them; nil for nothing.
func DecodeWays(data []byte) (map[string]json.RawMessage, error) {
	if len(data) == 0 {
		return nil, nil
	}
	var out map[string]json.RawMessage
	err := json.Unmarshal(data, &out)
	return out, err
}
