package sound
import ("testing";"os";"bytes";"path/filepath")
func BenchmarkFlac(b *testing.B){
	names,_:=filepath.Glob("/work/shared/takes/*.flac")
	var raws [][]byte
	for _,n:=range names { r,_:=os.ReadFile(n); raws=append(raws,r)}
	for b.Loop(){ for _,raw:=range raws { r,err:=Open(bytes.NewReader(raw)); if err!=nil {b.Fatal(err)}; for { if _,err:=r.Next();err!=nil{break}}}}
}
